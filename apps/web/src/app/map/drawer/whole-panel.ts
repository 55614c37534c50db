import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import type { ByChance } from '@pebble/contract';
import { formatCount, formatValue } from '@pebble/core';
import { stepRun } from '../../shared/step-run';
import { MapSession } from '../session/map-session';
import { Busy } from '../../shared/busy';

interface Figure {
  readonly name: string;
  readonly title: string;
  readonly how: string;
}

/** Figures in the order in which they are told, with what they say. */
const FIGURES: readonly Figure[] = [
  {
    name: 'density',
    title: 'density',
    how: 'Ties over those that could be, 0 to 1. It falls as networks grow: compare only networks of one size.',
  },
  {
    name: 'twoModeDensity',
    title: 'density between sorts',
    how: 'Ties over the pairs of one node of either sort, 0 to 1 (Borgatti & Everett 1997). In a two-mode network this is the density that means something; nodes of one sort are never tied.',
  },
  {
    name: 'meanDegree',
    title: 'mean degree',
    how: 'Ties over nodes where ties have a direction, twice that where they have none.',
  },
  {
    name: 'reciprocity',
    title: 'reciprocity',
    how: 'Of all ties the share that is answered by one the other way, 0 to 1.',
  },
  {
    name: 'transitivity',
    title: 'transitivity',
    how: 'Of all pairs of partners of a node the share that is tied itself, over the whole network, without direction (Newman 2003), 0 to 1.',
  },
  {
    name: 'assortativity',
    title: 'degree assortativity',
    how: 'Correlation of the degrees at both ends of a tie, -1 to 1 (Newman 2002): above 0 the well connected are tied with each other, below 0 with those who have few ties.',
  },
  {
    name: 'centralisation',
    title: 'centralisation',
    how: 'How much one node stands out by degree: 0 where all are alike, 1 in a star (Freeman 1979).',
  },
  {
    name: 'top1',
    title: 'held by the first 1 %',
    how: 'Share of all tie ends that the first 1 per cent of the nodes by degree have.',
  },
  {
    name: 'top10',
    title: 'held by the first 10 %',
    how: 'Share of all tie ends that the first 10 per cent of the nodes by degree have.',
  },
  {
    name: 'corePeriphery',
    title: 'core and periphery',
    how: 'How well it is one core, tied with each other and with the rest, and a periphery without ties among itself: correlation of the ties with that pattern, -1 to 1 (Borgatti & Everett 1999).',
  },
  { name: 'coreSize', title: 'nodes of that core', how: 'Nodes of the core that was found to fit best.' },
  {
    name: 'meanDistance',
    title: 'mean distance',
    how: 'Mean number of steps between two nodes of the largest component, without direction.',
  },
  {
    name: 'diameter',
    title: 'diameter',
    how: 'Most steps between two nodes of the largest component, without direction; at least so many where starts were sampled.',
  },
  { name: 'weakComponents', title: 'components', how: 'Parts with no tie between them.' },
  { name: 'largestWeak', title: 'nodes in the largest', how: 'Nodes of the largest component.' },
  {
    name: 'strongComponents',
    title: 'strong components',
    how: 'Parts in which every node is reached from every other along the direction of ties (Tarjan 1972).',
  },
  {
    name: 'largestStrong',
    title: 'nodes in the largest strong one',
    how: 'Nodes of the largest strong component.',
  },
  { name: 'isolates', title: 'isolates', how: 'Nodes with no tie to another.' },
  { name: 'selfTies', title: 'self-ties', how: 'Ties of a node to itself; they count in no other figure.' },
];

/** What the whole network is like, beside random networks with the same degrees. */
@Component({
  selector: 'pt-whole-panel',
  imports: [MatTooltip, MatButton, Busy],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem()) {
      <p class="error" role="alert">{{ problem() }}</p>
    }
    @if (whole(); as w) {
      <p class="soft">
        Of the whole network, also of what the map hides. “By chance”: mean and standard deviation of
        {{ w.networks }} random networks with the same degrees (seed {{ w.seed }}). Hover over a figure for what it says.
      </p>
      <dl>
        @for (one of figures(); track one.name) {
          <div [matTooltip]="one.how">
            <dt>{{ one.title }}</dt>
            <dd>
              {{ one.value }}
              @if (one.chance) {
                <small>by chance {{ one.chance }}</small>
              }
            </dd>
          </div>
        }
      </dl>
    } @else {
      <p class="soft">
        Density, reciprocity, distances, clustering, centralisation, components, and how much of it chance alone would
        give.
      </p>
    }
    <button matButton="outlined" [ptBusy]="busy()" (click)="ask()">
      {{ busy() ? 'Measuring …' : whole() ? 'Measure again' : 'Measure the whole network' }}
    </button>
  `,
  styleUrl: '../../shared/figures.scss',
  styles: `
    :host {
      display: block;
      overflow: auto;
      padding: 10px 18px 16px;
      min-height: 0;
      flex: 1;
      background: var(--sheet);
    }
    dl {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
      gap: 8px 24px;
      margin: 8px 0 12px;
    }
    dl div {
      border-top: 1px solid var(--line);
      padding-top: 4px;
    }
    small {
      display: block;
      font: 12.5px var(--ui);
      color: var(--soft);
    }
    p {
      margin: 0 0 6px;
      font-size: 13.5px;
    }
  `,
})
export class WholePanel {
  private readonly session = inject(MapSession);
  private readonly run = stepRun();
  protected readonly busy = this.run.busy;
  protected readonly problem = this.run.problem;
  protected readonly whole = computed(() => this.session.network()?.whole ?? null);
  /** Those that are there, with what chance gives. */
  protected readonly figures = computed(() => {
    const whole = this.whole();
    return FIGURES.flatMap((figure) => {
      const value = whole?.figures[figure.name] ?? null;
      if (value === null) return [];
      return [{ ...figure, value: shown(figure.name, value), chance: spread(whole?.byChance[figure.name]) }];
    });
  });

  protected ask(): void {
    const network = this.session.network();
    if (!network) return;
    const asked = { network: network.id, networks: 100, seed: 1 };
    this.run.start(network.study, 'describe-whole', asked, () => void this.session.refresh());
  }
}

function shown(name: string, value: number): string {
  if (name.startsWith('top')) return `${(100 * value).toFixed(0)} %`;
  return Number.isInteger(value)
    ? formatCount(value)
    : value < 0
      ? `−${formatValue(-value)}`
      : formatValue(value);
}

function wide(deviation: number | null): string {
  return deviation === null ? '' : ` ± ${formatValue(deviation)}`;
}

/** "0.021 ± 0.004" */
function spread(chance: ByChance | undefined): string | null {
  if (!chance) return null;
  const deviation = chance.deviation === null ? '' : ` ± ${chance.deviation.toFixed(3)}`;
  if (Math.abs(chance.mean) >= 100) return `${formatCount(Math.round(chance.mean))}${wide(chance.deviation)}`;
  return `${chance.mean.toFixed(3).replace('-', '−')}${deviation}`;
}

import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { GroupingSettings } from '@pebble/contract';
import { formatCount, formatValue, graphOf, groupTies, numbersOf, withOthers } from '@pebble/core';
import { stepRun } from '../../../shared/step-run';
import { MapSession } from '../../session/map-session';
import { codesOf, groupName } from '../../session/grouping';
import { Busy } from '../../../shared/busy';
import { draftOf } from '../../../shared/draft';

/** So many groups stand in the table; further ones are put together. */
const MOST = 60;

interface GroupRow {
  /** Its name in the column; null for what is put together. */
  readonly key: string | null;
  readonly name: string;
  readonly nodes: string;
  readonly within: string;
  readonly density: string;
  readonly outwardness: string;
  readonly sure: string | null;
}

/** The groups of a grouping: how large, how closed, how sure; they can be renamed and put together, as a grouping of its own. */
@Component({
  selector: 'pt-group-table',
  imports: [MatTooltip, MatInput, MatFormField, MatCheckbox, MatButton, Busy, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <table>
      <thead>
        <tr>
          <th></th>
          <th scope="col">group</th>
          <th scope="col" class="n">{{ session.words().many }}</th>
          <th scope="col" class="n" matTooltip="Ties with both ends in the group, of all its ties">ties within</th>
          <th scope="col" class="n" matTooltip="Ties within over those that could be, 0 to 1">density</th>
          <th
            scope="col"
            class="n"
            matTooltip="E-I index (Krackhardt & Stern 1988): ties that leave the group less those within, over both; -1 closed, 1 open"
          >
            E-I index
          </th>
          @if (hasSure()) {
            <th scope="col" class="n" matTooltip="Mean share of further runs in which its nodes stay with it">sure</th>
          }
        </tr>
      </thead>
      <tbody>
        @for (row of rows(); track row.key) {
          <tr>
            <td>
              @if (row.key !== null) {
                <mat-checkbox
                  [aria-label]="'Choose ' + row.name"
                  [checked]="chosen().has(row.key)"
                  (change)="toggle(row.key)" />
              }
            </td>
            <td>
              @if (row.key === null) {
                {{ row.name }}
              } @else {
                <mat-form-field class="name"><input matInput
                  maxlength="100"
                  [attr.aria-label]="'Name of ' + row.name"
                  [placeholder]="row.name"
                  [ngModel]="renamed()[row.key] || ''"
                  (ngModelChange)="rename(row.key, $event)" /></mat-form-field>
              }
            </td>
            <td class="n">{{ row.nodes }}</td>
            <td class="n">{{ row.within }}</td>
            <td class="n">{{ row.density }}</td>
            <td class="n">{{ row.outwardness }}</td>
            @if (hasSure()) {
              <td class="n">{{ row.sure }}</td>
            }
          </tr>
        }
      </tbody>
    </table>
    @for (pair of merged(); track pair) {
      <p class="soft">{{ pair }}</p>
    }
    @if (chosen().size === 1) {
      <p class="do">
        <label
          >resolution
          <mat-form-field class="count"><input matInput
            type="number"
            min="0.01"
            max="100"
            step="0.25"
            aria-label="Resolution for splitting"
            [ngModel]="resolution()"
            (ngModelChange)="resolution.set($event)" /></mat-form-field></label>
        <button matButton="outlined" [disabled]="!(resolution() > 0)" [ptBusy]="run.busy()" (click)="split()">
          {{ run.busy() ? 'Splitting …' : 'Split the group' }}
        </button>
        <span class="soft">by looking for groups within it; kept as “{{ splitAs() }}”</span>
      </p>
    }
    @if (chosen().size > 1) {
      <p class="do">
        <mat-form-field><input matInput
          maxlength="100"
          aria-label="Name of the groups put together"
          placeholder="one name for both"
          [ngModel]="one()"
          (ngModelChange)="one.set($event)" /></mat-form-field>
        <button matButton="outlined" [disabled]="!one().trim()" (click)="putTogether()">
          Put {{ chosen().size }} groups together
        </button>
      </p>
    }
    @if (changes() > 0) {
      <p class="do">
        {{ changes() }} {{ changes() === 1 ? 'name' : 'names' }} changed; kept as
        <mat-form-field><input matInput
          maxlength="60"
          aria-label="Name of the changed grouping"
          [ngModel]="keptAs()"
          (ngModelChange)="keptAs.set($event)" /></mat-form-field>
        <button matButton="filled" [disabled]="!keptAs().trim()" [ptBusy]="run.busy()" (click)="keep()">
          {{ run.busy() ? 'Keeping …' : 'Keep' }}
        </button>
        <button matButton (click)="renamed.set({})">Undo</button>
      </p>
    }
    @if (run.problem()) {
      <p class="error" role="alert">{{ run.problem() }}</p>
    }
  `,
  styleUrl: './group-table.scss',
})
export class GroupTable {
  readonly column = input.required<string>();
  /** The name of a grouping that was made of this one. */
  readonly made = output<string>();
  protected readonly session = inject(MapSession);
  protected readonly run = stepRun();
  protected readonly chosen = linkedSignal<string, ReadonlySet<string>>({
    source: this.column,
    computation: () => new Set(),
  });
  /** New names by old ones. */
  protected readonly renamed = linkedSignal<string, Readonly<Record<string, string>>>({
    source: this.column,
    computation: () => ({}),
  });
  protected readonly keptAs = draftOf(() => {
    const column = this.column();
    if (column === 'community') return 'groups';
    // What was named by hand is named on; what a method found stays as it is.
    return column in (this.session.network()?.groupings ?? {}) ? `${column}, named` : column;
  });
  protected readonly one = signal('');
  /** Of the groups within a group that is split. */
  protected readonly resolution = signal(1);
  protected readonly splitAs = computed(() =>
    this.column().endsWith(', split') ? this.column() : `${this.column()}, split`,
  );
  protected readonly changes = computed(
    () =>
      Object.entries(this.renamed()).filter(([key, name]) => name.trim() !== '' && name.trim() !== key)
        .length,
  );
  protected readonly hasSure = computed(() => `${this.column()}, sure` in (this.session.data()?.nodes ?? {}));
  protected readonly rows = computed<GroupRow[]>(() => {
    const data = this.session.data();
    const network = this.session.network();
    if (!data || !network || !(this.column() in data.nodes)) return [];
    const all = codesOf(data, this.column());
    const codes = withOthers(all, MOST);
    const ties = groupTies(graphOf(data.nodeCount, data.edges), codes.of, network.directed);
    const sure = this.hasSure() ? means(numbersOf(data.nodes, `${this.column()}, sure`), codes.of) : null;
    return codes.names.map((name, g) => {
      const inside = ties.ties[g * ties.groups + g];
      const outwardness = ties.outwardness[g];
      // I / (E + I) from (E - I) / (E + I).
      const own = (1 - outwardness) / 2;
      const isOthers = codes !== all && g === codes.names.length - 1;
      return {
        key: isOthers ? null : name,
        name: this.titleOf(name),
        nodes: formatCount(codes.size[g]),
        within: Number.isNaN(own) ? '–' : `${formatCount(inside)} (${Math.round(100 * own)} %)`,
        density: shown(ties.density[g * ties.groups + g]),
        outwardness: shown(outwardness),
        sure: sure && `${Math.round(100 * sure[g])} %`,
      };
    });
  });
  protected readonly merged = computed(() => {
    const stability = this.session.network()?.groupings[this.column()]?.stability;
    return (stability?.merged ?? [])
      .slice(0, 5)
      .map(
        ({ a, b, share }) =>
          `${this.titleOf(a)} and ${this.titleOf(b)} are one in ${Math.round(100 * share)} % of the runs.`,
      );
  });

  private titleOf(name: string): string {
    return groupName(name, this.session.titles()[this.column()]);
  }

  protected toggle(key: string): void {
    const next = new Set(this.chosen());
    if (!next.delete(key)) next.add(key);
    this.chosen.set(next);
  }

  protected rename(key: string, name: string): void {
    this.renamed.update((before) => ({ ...before, [key]: name }));
  }

  protected putTogether(): void {
    for (const key of this.chosen()) this.rename(key, this.one());
    this.chosen.set(new Set());
    this.one.set('');
  }

  protected split(): void {
    const network = this.session.network();
    const [group] = this.chosen();
    if (!network || group === undefined) return;
    const asked = {
      network: network.id,
      column: this.column(),
      group,
      name: this.splitAs(),
      settings: GroupingSettings.parse({ resolution: this.resolution() }),
    };
    this.run.start(network.study, 'split-group', asked, ({ result }) => {
      this.chosen.set(new Set());
      void this.session.refresh().then(() => this.made.emit(String(result?.['column'])));
    });
  }

  protected keep(): void {
    const network = this.session.network();
    if (!network) return;
    const rename = Object.fromEntries(
      Object.entries(this.renamed()).filter(([, name]) => name.trim() !== ''),
    );
    const asked = {
      network: network.id,
      column: this.column(),
      name: this.keptAs().trim(),
      rename,
      move: [],
    };
    this.run.start(network.study, 'regroup', asked, ({ result }) => {
      this.renamed.set({});
      void this.session.refresh().then(() => this.made.emit(String(result?.['column'])));
    });
  }
}

function shown(value: number): string {
  if (Number.isNaN(value)) return '–';
  return value < 0 ? `−${formatValue(-value)}` : formatValue(value);
}

function means(values: ArrayLike<number>, group: Uint32Array): number[] {
  const sums: number[] = [];
  const counts: number[] = [];
  group.forEach((g, v) => {
    sums[g] = (sums[g] ?? 0) + values[v];
    counts[g] = (counts[g] ?? 0) + 1;
  });
  return sums.map((sum, g) => sum / counts[g]);
}

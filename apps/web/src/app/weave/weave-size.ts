import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButton } from '@angular/material/button';
import { MatTooltip } from '@angular/material/tooltip';
import type { WeaveEstimate } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { counted } from '../shared/words';
import { WeaveSketch } from './weave-sketch';

/** How large a weave would be, in numbers and as a strip of its parts. */
@Component({
  selector: 'pt-weave-size',
  imports: [MatButton, MatTooltip, WeaveSketch],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let s = size();
    @if (s.emptiedBy) {
      <p class="error">
        {{ s.tooLarge ? '' : 'This gives no ties. ' }}{{ s.emptiedBy }}
        @if (s.wouldFit; as least) {
          <button matButton="outlined" (click)="fitted.emit(least)">Ask for at least {{ number(least) }}</button>
        }
      </p>
    }
    @if (!s.tooLarge) {
    <div class="side">
      <div>
    <dl>
      @for (fact of facts(); track fact.name) {
        <div [matTooltip]="fact.how">
          <dt>{{ fact.name }}</dt>
          <dd>{{ fact.value }}</dd>
        </div>
      }
    </dl>
    @if (s.nodes) {
      <div class="strip" role="img" [attr.aria-label]="parts()">
        <span class="largest" [style.flex-grow]="s.largest"></span>
        <span class="others" [style.flex-grow]="others()"></span>
        <span class="isolates" [style.flex-grow]="s.isolates"></span>
      </div>
      <p class="faint">{{ parts() }}</p>
    }
    @if (s.droppedBelowThreshold) {
      <p class="faint">{{ counted(s.droppedBelowThreshold, 'weaker tie') }} would be left out.</p>
    }
    @if (s.thinned; as t) {
      <table class="thinned">
        <caption>What thinning keeps, beside a plain threshold of about as many ties</caption>
        <thead>
          <tr><th></th><th scope="col">ties</th><th scope="col">nodes with a tie</th><th scope="col">weight</th></tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">backbone</th>
            <td>{{ number(t.backbone.ties) }}</td><td>{{ number(t.backbone.nodes) }}</td><td>{{ percent(t.backbone.weight) }}</td>
          </tr>
          <tr>
            <th scope="row">weight {{ least(t.plain.atLeast) }} or more</th>
            <td>{{ number(t.plain.ties) }}</td><td>{{ number(t.plain.nodes) }}</td><td>{{ percent(t.plain.weight) }}</td>
          </tr>
          <tr>
            <th scope="row">both</th>
            <td>{{ number(t.both) }}</td><td></td><td></td>
          </tr>
        </tbody>
      </table>
    }
    @for (note of s.notes; track note) {
      <p class="faint">{{ note }}</p>
    }
      </div>
      @if (s.sketch.ties.length > 0) {
        <pt-weave-sketch [sketch]="s.sketch" />
      }
    </div>
    }
  `,
  styleUrls: ['../shared/figures.scss', './weave-size.scss'],
})
export class WeaveSize {
  readonly size = input.required<WeaveEstimate>();
  /** What one and several nodes are called. */
  readonly words = input.required<readonly [one: string, many: string]>();
  /** What each tie is to have at least, for a network that can be held. */
  readonly fitted = output<number>();
  protected readonly counted = counted;
  protected readonly number = formatCount;
  protected readonly facts = computed(() => {
    const { nodes, edges, messages, components, largestShare, isolates } = this.size();
    const [, many] = this.words();
    return [
      { name: many, value: formatCount(nodes), how: 'Nodes of the network' },
      { name: 'ties', value: formatCount(edges), how: 'Pairs of nodes that are tied strongly enough' },
      { name: 'messages behind them', value: formatCount(messages), how: 'Messages that make these ties' },
      { name: 'isolates', value: formatCount(isolates), how: 'Nodes with no tie to another' },
      { name: 'components', value: formatCount(components), how: 'Parts with no tie between them' },
      {
        name: 'in the largest',
        value: `${(100 * largestShare).toFixed(0)} %`,
        how: 'Share of all nodes in the largest component',
      },
    ];
  });
  protected percent(share: number): string {
    return `${Math.round(100 * share)} %`;
  }

  protected least(weight: number): string {
    return Number.isInteger(weight) ? formatCount(weight) : weight.toPrecision(3);
  }

  /** Nodes of components other than the largest one and single nodes. */
  protected readonly others = computed(() => {
    const { nodes, largest, isolates } = this.size();
    return Math.max(0, nodes - (largest > 1 ? largest : 0) - isolates);
  });
  protected readonly parts = computed(() => {
    const { largest, isolates } = this.size();
    return [
      `${formatCount(largest)} in one piece`,
      ...(this.others() > 0 ? [`${formatCount(this.others())} in smaller pieces`] : []),
      ...(isolates > 0 ? [`${formatCount(isolates)} alone`] : []),
    ].join(', ');
  });
}

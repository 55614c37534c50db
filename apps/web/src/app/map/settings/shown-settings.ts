import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { ConditionList } from './condition-list';
import { injectMapEditor } from '../session/inject-map-editor';

/** Which part of the network is shown: ties by weight and time, nodes by conditions, components, communities. */
@Component({
  selector: 'pt-shown-settings',
  imports: [MatInput, MatFormField, MatCheckbox, MatButton, ConditionList, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './colour-settings.scss', './shown-settings.scss'],
  template: `
    @let show = map.description().show;
    <h4>What is shown</h4>
    <p class="how" role="status">{{ left() }}</p>
    <label
      >ties of at least
      <mat-form-field><input matInput
        type="number"
        min="0"
        aria-label="Least weight of a tie"
        [ngModel]="least()"
        (change)="setLeast(+$any($event.target).value)" /></mat-form-field>
      {{ map.session.isByAddress() ? 'messages' : 'of weight' }}</label
    >
    @if (dated(); as span) {
      <label
        >ties with messages from
        <mat-form-field class="date"><input matInput
          type="date"
          aria-label="From"
          [min]="span.first"
          [max]="span.last"
          [ngModel]="dayOf(show.period?.from)"
          (change)="setDay('from', $any($event.target).value)" /></mat-form-field>
      </label>
      <label
        >to
        <mat-form-field class="date"><input matInput
          type="date"
          aria-label="To"
          [min]="span.first"
          [max]="span.last"
          [ngModel]="dayOf(show.period?.until, -1)"
          (change)="setDay('until', $any($event.target).value)" /></mat-form-field></label>
    }
    <pt-condition-list heading="Nodes" [filter]="show.where" (changed)="map.set('show', { where: $event })" />
    @if (show.where.conditions.length > 0) {
      <label
        >the rest
        <mat-form-field><select matNativeControl aria-label="The rest" [ngModel]="show.rest" (ngModelChange)="map.set('show', { rest: $event })">
          <option value="hidden">is left out</option>
          <option value="pale">stays pale</option>
        </select></mat-form-field></label
      >
    }
    <mat-checkbox
        [ngModel]="show.largestComponent"
        (ngModelChange)="map.set('show', { largestComponent: $event })">largest component only</mat-checkbox>
    <mat-checkbox [ngModel]="show.isolates" (ngModelChange)="map.set('show', { isolates: $event })">nodes without ties</mat-checkbox>
    <p class="how">Measures stay those of the whole network; “Measures” can compute them of what is shown.</p>
    @if (groups().length) {
      <h4>
        Communities <button matButton (click)="map.set('show', { communities: null })">all</button>
      </h4>
      <div class="groups">
        @for (g of groups(); track g.value) {
          <mat-checkbox [ngModel]="isShown(g.value)" (ngModelChange)="toggle(g.value, $event)"><b
              [style.background]="g.colour"
            ></b
            ><span>{{ g.value }} · round {{ g.leader }}</span>
            <button matButton (click)="map.set('show', { communities: [g.value] })">only</button></mat-checkbox>
        }
      </div>
    }
  `,
})
export class ShownSettings {
  protected readonly map = injectMapEditor();
  protected readonly groups = computed(() => {
    if (this.map.description().colour.column !== 'community') return [];
    return (this.map.session.prepared()?.groups ?? []).filter(({ value }) => value > 0);
  });
  protected readonly left = computed(() => {
    const prepared = this.map.session.prepared();
    const words = this.map.session.words();
    if (!prepared) return '';
    const pale = prepared.pale?.reduce((sum, one) => sum + one, 0) ?? 0;
    const count = (value: number): string => value.toLocaleString('en');
    const beside = pale > 0 ? ` beside ${count(pale)} pale ones` : '';
    return `${count(prepared.nodes.length - pale)} of ${count(prepared.nodes.length + prepared.hiddenNodes)} ${words.many}${beside} and ${count(prepared.edges.length)} of ${count(prepared.edges.length + prepared.hiddenEdges)} ties are shown.`;
  });
  /** The days of the first and the last message, where ties have dates. */
  protected readonly dated = computed(() => {
    const edges = this.map.session.data()?.edges;
    if (!edges || !('first' in edges) || !('last' in edges)) return null;
    let [first, last] = [Infinity, -Infinity];
    for (const time of edges['first'] as Float64Array) if (time < first) first = time;
    for (const time of edges['last'] as Float64Array) if (time > last) last = time;
    return first <= last ? { first: this.dayOf(first), last: this.dayOf(last) } : null;
  });
  /** Where ties are messages, each has one at least. */
  protected readonly least = computed(() => {
    const { atLeast } = this.map.description().show;
    return this.map.session.isByAddress() ? Math.max(1, atLeast) : atLeast;
  });

  protected setLeast(value: number): void {
    if (value >= 0) this.map.set('show', { atLeast: value });
  }

  protected dayOf(time: number | null | undefined, shift = 0): string {
    return time == null ? '' : new Date(time + shift).toISOString().slice(0, 10);
  }

  protected setDay(which: 'from' | 'until', day: string): void {
    const before = this.map.description().show.period ?? { from: null, until: null };
    const time = day === '' ? null : Date.parse(`${day}T00:00:00Z`) + (which === 'until' ? 86_400_000 : 0);
    const period = { ...before, [which]: time };
    this.map.set('show', { period: period.from === null && period.until === null ? null : period });
  }

  protected toggle(value: number, on: boolean): void {
    const all = this.groups().map((group) => group.value);
    const chosen = new Set(this.map.description().show.communities ?? all);
    if (on) chosen.add(value);
    else chosen.delete(value);
    this.map.set('show', { communities: [...chosen].sort((a, b) => a - b) });
  }

  protected isShown(value: number): boolean {
    return this.map.description().show.communities?.includes(value) ?? true;
  }
}

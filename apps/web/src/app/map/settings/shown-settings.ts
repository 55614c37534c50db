import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { groupTitle, type ColourGroup } from '@pebble/core';
import { formatCount } from '@pebble/core/first';
import { DayRangeField, type DayRange } from '../../shared/days/day-range';
import { ConditionList } from './condition-list';
import { injectMapEditor } from '../session/inject-map-editor';

/** Which part of the network is shown: ties by weight and time, nodes by conditions, components, communities. */
@Component({
  selector: 'pt-shown-settings',
  imports: [MatInput, MatFormField, MatCheckbox, MatButton, ConditionList, DayRangeField, FormsModule],
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
      <div>
        ties with messages from
        <pt-day-range [range]="show.period ?? anyDay" [within]="span" (changed)="setDays($event)" />
      </div>
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
            ><span>{{ titleOf(g) }}</span>
            <button matButton (click)="map.set('show', { communities: [g.value] })">only</button></mat-checkbox>
        }
      </div>
    }
  `,
})
export class ShownSettings {
  protected readonly map = injectMapEditor();
  protected titleOf(group: ColourGroup): string {
    return groupTitle(this.map.session.titles(), 'community', group);
  }
  protected readonly anyDay: DayRange = { from: null, until: null };
  protected readonly groups = computed(() => {
    if (this.map.description().colour.column !== 'community') return [];
    return (this.map.session.prepared()?.groups ?? []).filter(({ value }) => value > 0);
  });
  protected readonly left = computed(() => {
    const prepared = this.map.session.prepared();
    const words = this.map.session.words();
    if (!prepared) return '';
    const pale = prepared.pale?.reduce((sum, one) => sum + one, 0) ?? 0;
    const count = formatCount;
    const beside = pale > 0 ? ` beside ${count(pale)} pale ones` : '';
    return `${count(prepared.nodes.length - pale)} of ${count(prepared.nodes.length + prepared.hiddenNodes)} ${words.many}${beside} and ${count(prepared.edges.length)} of ${count(prepared.edges.length + prepared.hiddenEdges)} ties are shown.`;
  });
  /** The days of the first and the last message, where ties have dates. */
  protected readonly dated = computed<DayRange | null>(() => {
    const edges = this.map.session.data()?.edges;
    if (!edges || !('first' in edges) || !('last' in edges)) return null;
    let [first, last] = [Infinity, -Infinity];
    for (const time of edges['first'] as Float64Array) if (time < first) first = time;
    for (const time of edges['last'] as Float64Array) if (time > last) last = time;
    return first <= last ? { from: first, until: last + 1 } : null;
  });
  /** Where ties are messages, each has one at least. */
  protected readonly least = computed(() => {
    const { atLeast } = this.map.description().show;
    return this.map.session.isByAddress() ? Math.max(1, atLeast) : atLeast;
  });

  protected setLeast(value: number): void {
    if (value >= 0) this.map.set('show', { atLeast: value });
  }

  protected setDays(period: DayRange): void {
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

import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Condition } from '@pebble/contract';
import { conditionPhrase } from '@pebble/core';
import { ConditionForm } from './condition-form';
import { describing } from './describing';

/** Which part of the network is shown: ties by weight and time, nodes by conditions, components, communities. */
@Component({
  selector: 'pt-shown-settings',
  imports: [ConditionForm, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './colour-settings.scss', './shown-settings.scss'],
  template: `
    @let show = map.description().show;
    <h4>What is shown</h4>
    <p class="how" role="status">{{ left() }}</p>
    <label
      >ties of at least
      <input
        class="box"
        type="number"
        min="0"
        aria-label="Least weight of a tie"
        [ngModel]="show.atLeast"
        (change)="setLeast(+$any($event.target).value)"
      />
      {{ map.session.isByAddress() ? 'messages' : 'of weight' }}</label
    >
    @if (dated(); as span) {
      <label
        >ties with messages from
        <input
          class="box date"
          type="date"
          aria-label="From"
          [min]="span.first"
          [max]="span.last"
          [ngModel]="dayOf(show.period?.from)"
          (change)="setDay('from', $any($event.target).value)"
        />
      </label>
      <label
        >to
        <input
          class="box date"
          type="date"
          aria-label="To"
          [min]="span.first"
          [max]="span.last"
          [ngModel]="dayOf(show.period?.until, -1)"
          (change)="setDay('until', $any($event.target).value)"
      /></label>
    }
    <h4>
      Nodes
      @if (show.where.conditions.length > 1) {
        <span class="seg" role="group" aria-label="Joined by">
          @for (one of joins; track one[0]) {
            <button
              [class.on]="show.where.joined === one[0]"
              [attr.aria-pressed]="show.where.joined === one[0]"
              (click)="setWhere({ joined: one[0] })"
            >
              {{ one[1] }}
            </button>
          }
        </span>
      }
    </h4>
    @for (one of show.where.conditions; track $index) {
      <div class="condition">
        <p>
          {{ phrase(one) }}
          <button class="btn plain" (click)="turn($index)">{{ one.not ? 'without “not”' : 'not' }}</button>
          <button class="btn plain" [attr.aria-label]="'Take away: ' + phrase(one)" (click)="remove($index)">
            take away
          </button>
        </p>
        <pt-condition-form [condition]="one" (changed)="replace($index, $event)" />
      </div>
    }
    <label
      >and only
      <select #kind class="box" aria-label="New condition" (change)="add($any(kind.value)); kind.value = ''">
        <option value="">add a condition …</option>
        @for (one of kinds(); track one[0]) {
          <option [value]="one[0]">{{ one[1] }}</option>
        }
      </select></label
    >
    @if (show.where.conditions.length > 0) {
      <label
        >the rest
        <select class="box" aria-label="The rest" [ngModel]="show.rest" (ngModelChange)="map.set('show', { rest: $event })">
          <option value="hidden">is left out</option>
          <option value="pale">stays pale</option>
        </select></label
      >
    }
    <label
      ><input
        type="checkbox"
        [ngModel]="show.largestComponent"
        (ngModelChange)="map.set('show', { largestComponent: $event })"
      />
      largest component only</label
    >
    <label
      ><input type="checkbox" [ngModel]="show.isolates" (ngModelChange)="map.set('show', { isolates: $event })" />
      nodes without ties</label
    >
    <p class="how">Measures stay those of the whole network; “Who matters how” can compute them of what is shown.</p>
    @if (groups().length) {
      <h4>
        Communities <button class="btn plain" (click)="map.set('show', { communities: null })">all</button>
      </h4>
      <div class="groups">
        @for (g of groups(); track g.value) {
          <label
            ><input type="checkbox" [ngModel]="isShown(g.value)" (ngModelChange)="toggle(g.value, $event)" /><b
              [style.background]="g.colour"
            ></b
            ><span>{{ g.value }} · round {{ g.leader }}</span>
            <button class="btn plain" (click)="map.set('show', { communities: [g.value] })">only</button></label
          >
        }
      </div>
    }
  `,
})
export class ShownSettings {
  protected readonly map = describing();
  protected readonly phrase = conditionPhrase;
  protected readonly joins = [
    ['and', 'all of these'],
    ['or', 'one of these'],
  ] as const;
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
  protected readonly kinds = computed(() => {
    const selection = this.map.session.selection();
    return [
      ['range', 'a number in a range'],
      ...(this.map.groupColumns().length > 0 ? [['values', 'a category']] : []),
      ['named', 'the name contains'],
      ['core', 'in the core'],
      ['components', 'in the largest components'],
      ...(selection?.what === 'node' ? [['near', 'near the selected node']] : []),
    ] as const;
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

  protected add(what: Condition['what'] | ''): void {
    const first = this.map.numberColumns().at(0)?.name ?? '';
    const group = this.map.groupColumns().at(0)?.name ?? '';
    const selection = this.map.session.selection();
    const begun = {
      range: {
        what,
        column: this.map.numberColumns().some(({ name }) => name === 'degree') ? 'degree' : first,
        from: 2,
      },
      values: { what, column: group, values: [] },
      named: { what, text: '' },
      core: { what, atLeast: 2 },
      components: { what, largest: 1 },
      near: { what, nodes: selection?.what === 'node' ? [selection.node] : [], steps: 1 },
    };
    if (what === '') return;
    const { conditions } = this.map.description().show.where;
    this.setWhere({ conditions: [...conditions, Condition.parse(begun[what])] });
  }

  protected replace(at: number, condition: Condition): void {
    const { conditions } = this.map.description().show.where;
    this.setWhere({ conditions: conditions.map((one, i) => (i === at ? condition : one)) });
  }

  protected turn(at: number): void {
    const one = this.map.description().show.where.conditions[at];
    this.replace(at, { ...one, not: !one.not });
  }

  protected remove(at: number): void {
    const { conditions } = this.map.description().show.where;
    this.setWhere({ conditions: conditions.filter((_, i) => i !== at) });
  }

  protected setWhere(change: Partial<{ joined: 'and' | 'or'; conditions: Condition[] }>): void {
    this.map.set('show', { where: { ...this.map.description().show.where, ...change } });
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

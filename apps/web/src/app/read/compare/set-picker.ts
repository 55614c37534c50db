import { ChangeDetectionStrategy, Component, computed, inject, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MessageKind, type MessageFilter, type MessageSet, type Network } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { DayRangeField, type DayRange } from '../../shared/days/day-range';
import { of } from 'rxjs';
import { Api } from '../../api/api';
import { latest } from '../../shared/latest';
import { work } from '../../store/work.reducer';
import { Portraits } from '../common/portraits';

/** Chooses a set of messages: of a group, of a time, by a filter, behind another network. */
@Component({
  selector: 'pt-set-picker',
  imports: [DayRangeField, FormsModule, MatFormField, MatInput, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <b>{{ name() }}</b>
    <mat-form-field class="sort"
      ><select matNativeControl [attr.aria-label]="name() + ' is'" (change)="begin($any($event.target).value)">
        @if (network()) {
          <option value="group" [selected]="set().what === 'group'">a group</option>
        }
        <option value="filter" [selected]="set().what === 'filter'">messages by time and words</option>
        @if (network()) {
          <option value="network" [selected]="set().what === 'network'">a network</option>
        }
      </select></mat-form-field
    >
    @switch (set().what) {
      @case ('group') {
        <mat-form-field class="wide"
          ><select matNativeControl [attr.aria-label]="'Group of ' + name()" [matTooltip]="groupTitle()" (change)="pickGroup($any($event.target).value)">
            @for (one of groups(); track one.group; let i = $index) {
              <option [value]="one.group" [selected]="isGroup(one.group)">{{ portraits.titles()[i] }}</option>
            } @empty {
              <option>draw the portraits first</option>
            }
          </select></mat-form-field
        >
      }
      @case ('network') {
        <mat-form-field class="wide"
          ><select matNativeControl [attr.aria-label]="'Network of ' + name()" [matTooltip]="networkName()" (change)="set.set({ what: 'network', network: $any($event.target).value })">
            @for (one of networks(); track one.id) {
              <option [value]="one.id" [selected]="isNetwork(one.id)">{{ one.name }}</option>
            }
          </select></mat-form-field
        >
      }
      @default {
        <pt-day-range [range]="days()" (changed)="pickDays($event)" />
        <mat-form-field class="words"
          ><input matInput placeholder="words" [attr.aria-label]="'Words of ' + name()" [value]="filter().text ?? ''" (change)="pick({ text: $any($event.target).value })"
        /></mat-form-field>
        <mat-form-field class="words"
          ><input matInput placeholder="#hashtag" [attr.aria-label]="'Hashtag of ' + name()" [value]="filter().hashtag ?? ''" (change)="pick({ hashtag: $any($event.target).value })"
        /></mat-form-field>
        <mat-form-field class="words"
          ><input matInput placeholder="@account" [attr.aria-label]="'Account of ' + name()" [value]="filter().author ?? ''" (change)="pick({ author: $any($event.target).value })"
        /></mat-form-field>
        <mat-form-field
          ><select matNativeControl [attr.aria-label]="'Kind of ' + name()" (change)="pick({ kind: $any($event.target).value || undefined })">
            <option value="">any kind</option>
            @for (one of kinds; track one) {
              <option [value]="one" [selected]="one === filter().kind">{{ one }}</option>
            }
          </select></mat-form-field
        >
        @if (codes().length > 0) {
          <mat-form-field
            ><select matNativeControl [attr.aria-label]="'Code of ' + name()" (change)="pick({ code: $any($event.target).value || undefined })">
              <option value="">coded or not</option>
              @for (one of codes(); track one.id) {
                <option [value]="one.name" [selected]="one.name === filter().code">{{ one.name }}</option>
              }
            </select></mat-form-field
          >
        }
        @if (sources().length > 1) {
          <mat-form-field class="wide"
            ><select matNativeControl [attr.aria-label]="'Source of ' + name()" [matTooltip]="sourceName()" (change)="pickSource($any($event.target).value)">
              <option value="">any source</option>
              @for (one of sources(); track one.id) {
                <option [value]="one.id" [selected]="one.id === filter().source">{{ one.name }}</option>
              }
            </select></mat-form-field
          >
        }
      }
    }
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
    }
    b {
      font: 600 18px var(--serif);
      width: 18px;
    }
    .wide {
      width: 240px;
    }
    .words {
      width: 130px;
    }
  `,
})
export class SetPicker {
  /** "A" or "B". */
  readonly name = input.required<string>();
  readonly network = input.required<Network | null>();
  readonly column = input.required<string>();
  readonly set = model.required<MessageSet>();
  protected readonly portraits = inject(Portraits);
  private readonly store = inject(Store);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  protected readonly sources = this.store.selectSignal(work.selectSources);
  private readonly api = inject(Api);
  private readonly current = this.store.selectSignal(work.selectStudy);
  private readonly study = computed(() => this.current()?.id ?? '');
  private readonly book = latest(this.study, (study) =>
    study === '' ? of(null) : this.api.codebook({ study }),
  );
  /** Codes by which messages can be chosen. */
  protected readonly codes = computed(() => this.book()?.codes ?? []);
  protected readonly kinds = MessageKind.options;
  protected readonly groups = computed(() => this.portraits.list()?.groups ?? []);
  protected readonly filter = computed((): MessageFilter => {
    const set = this.set();
    return set.what === 'filter' ? set.filter : {};
  });

  /** What is chosen, where it is longer than its field. */
  protected readonly groupTitle = computed(() => {
    const set = this.set();
    return set.what === 'group' ? this.portraits.titleOf(set.group) : '';
  });
  protected readonly networkName = computed(() => {
    const set = this.set();
    return set.what === 'network' ? this.networks().find(({ id }) => id === set.network)?.name : '';
  });
  protected readonly sourceName = computed(
    () => this.sources().find(({ id }) => id === this.filter().source)?.name,
  );
  protected readonly days = computed((): DayRange => {
    const { from = null, until = null } = this.filter();
    return { from, until };
  });

  protected begin(what: MessageSet['what']): void {
    switch (what) {
      case 'filter':
        return this.set.set({ what, filter: {} });
      case 'network':
        return this.set.set({ what, network: this.network()?.id ?? '' });
      case 'group':
        return this.pickGroup(this.groups().at(0)?.group ?? '');
    }
  }

  protected pickGroup(group: string): void {
    const network = this.network();
    if (network) this.set.set({ what: 'group', network: network.id, column: this.column(), group });
  }

  protected isGroup(group: string): boolean {
    const set = this.set();
    return set.what === 'group' && set.group === group;
  }

  protected isNetwork(id: string): boolean {
    const set = this.set();
    return set.what === 'network' && set.network === id;
  }

  protected pickDays({ from, until }: DayRange): void {
    this.pick({ from: from ?? undefined, until: until ?? undefined });
  }

  protected pickSource(id: string): void {
    this.pick({ source: id === '' ? undefined : Number(id) });
  }

  protected pick(part: Partial<MessageFilter>): void {
    const filter = Object.fromEntries(
      Object.entries({ ...this.filter(), ...part }).filter(
        ([, value]) => value !== undefined && value !== '',
      ),
    );
    this.set.set({ what: 'filter', filter });
  }
}

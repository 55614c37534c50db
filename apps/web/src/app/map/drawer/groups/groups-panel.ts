import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MapSession } from '../../session/map-session';
import { GroupCompare } from './group-compare';
import { GroupFinder } from './group-finder';
import { groupingsOf } from '../../session/grouping';
import { GroupMatrix } from './group-matrix';
import { GroupTable } from './group-table';

type View = 'groups' | 'between' | 'agreement';

/** Groups of the nodes: found by a method, named by hand, compared with each other. */
@Component({
  selector: 'pt-groups-panel',
  imports: [
    MatButtonToggleGroup,
    MatButtonToggle,
    MatTooltip,
    MatInput,
    MatFormField,
    MatButton,
    FormsModule,
    GroupCompare,
    GroupFinder,
    GroupMatrix,
    GroupTable,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <pt-group-finder (found)="show($event)" />
    <section aria-label="Groups">
      @if (column(); as c) {
        <div class="choice">
          <mat-form-field><select matNativeControl aria-label="Grouping" [ngModel]="c" (ngModelChange)="chosen.set($event)">
            @for (one of groupings(); track one.name) {
              <option [value]="one.name">{{ one.title }}</option>
            }
          </select></mat-form-field>
          <mat-button-toggle-group hideSingleSelectionIndicator aria-label="View of the groups">
            <mat-button-toggle [checked]="view() === 'groups'" (change)="view.set('groups')">Its groups</mat-button-toggle>
            <mat-button-toggle [checked]="view() === 'between'" (change)="view.set('between')">Between groups</mat-button-toggle>
            <mat-button-toggle
              [checked]="view() === 'agreement'"
              [disabled]="others().length === 0"
              [matTooltip]="others().length === 0 ? 'There is only one grouping: find another one first.' : ''"
              (change)="view.set('agreement')"
            >
              Beside another
            </mat-button-toggle>
          </mat-button-toggle-group>
          @if (view() === 'agreement' && other(); as o) {
            <mat-form-field><select matNativeControl aria-label="The other grouping" [ngModel]="o" (ngModelChange)="beside.set($event)">
              @for (one of others(); track one.name) {
                <option [value]="one.name">{{ one.title }}</option>
              }
            </select></mat-form-field>
          }
          <button matButton="outlined" [attr.aria-pressed]="isColour()" (click)="colour(c)">
            {{ isColour() ? 'Colours the map' : 'Colour the map by it' }}
          </button>
          <span class="soft how" [matTooltip]="how()">{{ how() }}</span>
        </div>
        <div class="view">
          @if (view() === 'groups') {
            <pt-group-table [column]="c" (made)="show($event)" />
          } @else if (view() === 'between') {
            <pt-group-matrix [column]="c" />
          } @else if (other(); as o) {
            <pt-group-compare [column]="c" [other]="o" />
          }
        </div>
      } @else {
        <p class="soft">This network has no groups yet: find some.</p>
      }
    </section>
  `,
  styleUrls: ['../beside.scss', './groups-panel.scss'],
})
export class GroupsPanel {
  private readonly session = inject(MapSession);
  protected readonly view = signal<View>('groups');
  protected readonly groupings = computed(() => groupingsOf(this.session.network(), this.session.data()));
  protected readonly chosen = signal<string | null>(null);
  protected readonly column = computed(() => {
    const names = this.groupings().map(({ name }) => name);
    return names.find((name) => name === this.chosen()) ?? names.at(0) ?? null;
  });
  protected readonly others = computed(() => this.groupings().filter(({ name }) => name !== this.column()));
  protected readonly beside = linkedSignal<string | null, string | null>({
    source: this.column,
    computation: (_, before) => before?.value ?? null,
  });
  protected readonly other = computed(() => {
    const names = this.others().map(({ name }) => name);
    return names.find((name) => name === this.beside()) ?? names.at(0) ?? null;
  });
  protected readonly how = computed(() => {
    const column = this.groupings().find(({ name }) => name === this.column());
    const info = this.session.network()?.groupings[this.column() ?? ''];
    return `${column?.how ?? ''}${info ? ` Modularity ${info.modularity.toFixed(3)}.` : ''}`;
  });
  protected readonly isColour = computed(() => this.session.description().colour.column === this.column());

  protected show(column: string): void {
    this.chosen.set(column);
    this.view.set('groups');
    this.colour(column);
  }

  protected colour(column: string): void {
    const before = this.session.description();
    const description = {
      ...before,
      colour: { ...before.colour, column, chosen: {}, order: [], unsure: null },
    };
    this.session.describe(description);
  }
}

import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  type OnDestroy,
  output,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { LayoutMethod, LayoutSettings } from '@pebble/contract';
import { graphOf, layoutKind, LAYOUTS, startingValues } from '@pebble/core';
import { injectMapEditor } from '../session/inject-map-editor';
import { LegibilityFigures } from './legibility-figures';
import { LayoutTrials, type Trial } from './layout-trials';
import { percent } from './percent';
import { TrialPicture } from './trial-picture';
import { CountPipe } from '../../shared/count-pipe';
import { draftOf } from '../../shared/draft';

/** So many of the tries are offered. */
const OFFERED = 4;

/** How the map is arranged, how well it reads so, and other tries to choose from. */
@Component({
  selector: 'pt-arrangement-settings',
  imports: [
    CountPipe,
    MatTooltip,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    FormsModule,
    LegibilityFigures,
    TrialPicture,
  ],
  providers: [LayoutTrials],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './arrangement-settings.scss'],
  template: `
    @let s = draft();
    <h4>Arrangement</h4>
    <label
      >arranged
      <mat-form-field><select matNativeControl aria-label="Arrangement" [ngModel]="s.method" (ngModelChange)="choose($event)">
        @for (one of layouts; track one.method) {
          <option [value]="one.method">{{ one.phrase }}</option>
        }
      </select></mat-form-field></label
    >
    <p class="how">{{ words().says }} ({{ words().source }})</p>
    @switch (words().goesBy) {
      @case ('a number') {
        <label
          >by
          <mat-form-field><select matNativeControl aria-label="By" [ngModel]="s.column" (ngModelChange)="change({ column: $event })">
            <option [ngValue]="null">degree</option>
            @for (c of map.numberColumns(); track c.name) {
              <option [ngValue]="c.name">{{ c.title }}</option>
            }
          </select></mat-form-field></label
        >
      }
      @case ('two numbers') {
        <label
          >across
          <mat-form-field><select matNativeControl aria-label="Across" [ngModel]="s.column" (ngModelChange)="change({ column: $event })">
            <option [ngValue]="null">degree</option>
            @for (c of map.numberColumns(); track c.name) {
              <option [ngValue]="c.name">{{ c.title }}</option>
            }
          </select></mat-form-field></label
        >
        <label
          >up
          <mat-form-field><select matNativeControl aria-label="Up" [ngModel]="s.other" (ngModelChange)="change({ other: $event })">
            <option [ngValue]="null">degree</option>
            @for (c of map.numberColumns(); track c.name) {
              <option [ngValue]="c.name">{{ c.title }}</option>
            }
          </select></mat-form-field></label
        >
      }
      @case ('groups') {
        <label
          >by
          <mat-form-field><select matNativeControl aria-label="Groups by" [ngModel]="s.column" (ngModelChange)="change({ column: $event })">
            <option [ngValue]="null">what colours the map</option>
            @for (c of map.groupColumns(); track c.name) {
              <option [ngValue]="c.name">{{ c.title }}</option>
            }
          </select></mat-form-field></label
        >
      }
    }
    @if (s.method === 'attraction' || s.method === 'islands') {
      <label
        >communities
        <mat-form-field><select matNativeControl aria-label="Communities apart" [ngModel]="s.apart" (ngModelChange)="change({ apart: $event })">
          <option value="little">a little apart</option>
          <option value="usual">apart</option>
          <option value="far">far apart</option>
        </select></mat-form-field></label
      >
      <label
        >ties pull
        <mat-form-field><select matNativeControl aria-label="Ties pull" [ngModel]="s.weights" (ngModelChange)="change({ weights: $event })">
          <option value="none">all the same</option>
          <option value="root">by the root of their weight</option>
          <option value="whole">by their weight</option>
        </select></mat-form-field></label
      >
      <label
        >push apart
        <mat-form-field><input matInput
          type="number"
          min="0.01"
          max="1000"
          [ngModel]="s.repulsion"
          (change)="number('repulsion', +$any($event.target).value, 0.01, 1000)" /></mat-form-field>
        pull in
        <mat-form-field><input matInput
          type="number"
          min="0"
          max="100"
          step="0.5"
          [ngModel]="s.gravity"
          (change)="number('gravity', +$any($event.target).value, 0, 100)" /></mat-form-field></label>
      <label
        >nodes with many ties
        <mat-form-field><select matNativeControl
          aria-label="Nodes with many ties"
          [ngModel]="s.hubs"
          (ngModelChange)="change({ hubs: $event })"
        >
          <option value="usual">as they come</option>
          <option value="middle">to the middle</option>
          <option value="rim">to the rim</option>
        </select></mat-form-field></label
      >
      <mat-checkbox
        matTooltip="For long ones: it goes on when this page is closed"
        [ngModel]="onServer()"
        (ngModelChange)="onServer.set($event)">go on on the server</mat-checkbox>
    }
    @if (isByChance()) {
      <label
        >seed
        <mat-form-field><input matInput
          type="number"
          min="0"
          max="4294967295"
          aria-label="Seed"
          [ngModel]="s.seed"
          (change)="number('seed', +$any($event.target).value, 0, 4294967295)" /></mat-form-field></label>
    }
    @if (s.method === 'attraction') {
      <label
        >rounds
        <mat-form-field><input matInput
          type="number"
          min="1"
          max="10000"
          step="100"
          aria-label="Rounds at most"
          [ngModel]="s.iterations"
          (change)="number('iterations', +$any($event.target).value, 1, 10000)" /></mat-form-field></label
      >
    }
    <mat-checkbox [ngModel]="s.separate" (ngModelChange)="change({ separate: $event })">move
      overlapping nodes apart</mat-checkbox>
    <mat-checkbox
        [ngModel]="s.isolates === 'below'"
        (ngModelChange)="change({ isolates: $event ? 'below' : 'among' })">nodes without ties in a band below</mat-checkbox>
    @if (held() > 0 || moved() > 0) {
      <mat-checkbox [ngModel]="s.keepMoved" (ngModelChange)="change({ keepMoved: $event })">nodes moved by
        hand stay ({{ moved() }})</mat-checkbox>
      @if (held() > 0) {
        <p class="how">{{ held() }} held {{ held() === 1 ? 'node stays' : 'nodes stay' }} where {{ held() === 1 ? 'it is' : 'they are' }}.</p>
      }
    }
    <p class="do">
      <button matButton="filled" (click)="arrange({ ...s, begin: 'anew' })">Arrange</button>
      @if (s.method === 'attraction' && map.session.places()) {
        <button matButton="outlined"
          matTooltip="From where the nodes are now; held nodes do not move, nothing is turned or packed anew"
          (click)="goOn(s)"
        >
          Go on
        </button>
      }
      @if (isByChance()) {
        @if (trials.done() === null) {
          <button matButton="outlined" (click)="trials.start()">Try 8 others</button>
        } @else {
          <button matButton="outlined" (click)="trials.stop()">Stop ({{ trials.done() }} of 8)</button>
        }
      }
    </p>
    @if (trials.trials().length) {
      <div class="trials" role="group" aria-label="Other arrangements, the best first">
        @for (trial of offered(); track trial.settings.seed) {
          <button (click)="take(trial)" [matTooltip]="'Seed ' + trial.settings.seed">
            <pt-trial-picture [map]="map.session.prepared()!" [places]="trial.places" />
            {{ percent(trial.figures.neighboursKept) }} kept, {{ trial.figures.crossings | count }} crossings
          </button>
        }
      </div>
    }
    <pt-legibility-figures />
  `,
})
export class ArrangementSettings implements OnDestroy {
  /** Told when a new arrangement was begun or taken. */
  readonly arranged = output();
  protected readonly map = injectMapEditor();
  protected readonly trials = inject(LayoutTrials);
  protected readonly layouts = LAYOUTS;
  protected readonly draft = draftOf<LayoutSettings>(() => this.map.session.settings());
  protected readonly words = computed(() => layoutKind(this.draft().method));
  protected readonly isByChance = computed(() => this.words().isByChance);
  /** Whether the server goes on, and not this page. */
  protected readonly onServer = signal(false);
  protected readonly held = computed(() => this.map.description().held.length);
  protected readonly moved = computed(() => this.map.session.moves().size);
  protected readonly offered = computed(() => this.trials.trials().slice(0, OFFERED));
  protected readonly percent = percent;

  protected choose(method: LayoutMethod): void {
    const { goesBy } = layoutKind(method);
    const column = goesBy === 'nothing' || goesBy === 'groups' ? null : this.map.description().size.column;
    const other = goesBy === 'two numbers' ? this.map.description().names.column : null;
    const names = new Set(this.map.numberColumns().map(({ name }) => name));
    if (method === 'given' && names.has('x') && names.has('y'))
      return this.change({ method, column: 'x', other: 'y' });
    if (method === 'round-one')
      return this.change({ method, column, other, centre: this.map.session.chosen().at(0) ?? null });
    const data = this.map.session.data();
    if (method === 'attraction' && data)
      return this.change(startingValues(graphOf(data.nodeCount, data.edges)));
    this.change({ method, column, other });
  }

  protected change(part: Partial<LayoutSettings>): void {
    this.draft.update((before) => ({ ...before, ...part }));
  }

  protected number(
    field: 'seed' | 'gravity' | 'repulsion' | 'iterations',
    value: number,
    least: number,
    most: number,
  ): void {
    if (value >= least && value <= most)
      this.change({ [field]: field === 'seed' || field === 'iterations' ? Math.round(value) : value });
  }

  protected goOn(draft: LayoutSettings): void {
    const settings: LayoutSettings = { ...draft, begin: 'as it is' };
    if (!this.onServer()) return this.arrange(settings);
    this.trials.stop();
    void this.map.session.arrangeOnServer(settings);
    this.arranged.emit();
  }

  protected arrange(settings: LayoutSettings): void {
    this.trials.stop();
    this.map.session.arrange(settings);
    this.arranged.emit();
  }

  protected take({ settings, places }: Trial): void {
    this.trials.stop();
    this.map.session.takePlaces(settings, places);
    this.arranged.emit();
  }

  ngOnDestroy(): void {
    this.trials.stop();
  }
}

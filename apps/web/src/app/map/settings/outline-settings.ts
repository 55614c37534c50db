import { ChangeDetectionStrategy, Component, computed, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatTooltip } from '@angular/material/tooltip';
import { nodesOfStroke } from '@pebble/core';
import { formatCount } from '@pebble/core/first';
import { injectMapEditor } from '../session/inject-map-editor';
import { TitleFields } from './title-fields';
import { Busy } from '../../shared/busy';
import { stepRun } from '../../shared/step-run';
import { PortraitSettings } from '@pebble/contract';
import { CountPipe } from '../../shared/count-pipe';

/** Groups whose titles can be set. */
const LISTED = 20;

/** What is outlined on the map, and under which titles. */
@Component({
  selector: 'pt-outline-settings',
  imports: [
    CountPipe,
    MatTooltip,
    MatButtonToggleGroup,
    MatButtonToggle,
    MatInput,
    MatFormField,
    MatButton,
    Busy,
    FormsModule,
    TitleFields,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './colour-settings.scss'],
  template: `
    @let d = map.description().regions;
    <h4>Outlines</h4>
    <label
      >round
      <mat-form-field><select matNativeControl
        aria-label="Outlines round"
        [ngModel]="d.column"
        (ngModelChange)="map.set('regions', { column: $event, titles: {}, notes: {} })"
      >
        <option [ngValue]="null">no groups</option>
        @for (c of map.groupColumns(); track c.name) {
          <option [ngValue]="c.name">{{ c.title }}</option>
        }
      </select></mat-form-field></label
    >
    @if (d.column !== null || d.own.length > 0) {
      <mat-button-toggle-group hideSingleSelectionIndicator aria-label="Where the line runs">
        @for (form of forms; track form[0]) {
          <mat-button-toggle
            [checked]="d.form === form[0]"
            (change)="map.set('regions', { form: form[0] })"
          >
            {{ form[1] }}
          </mat-button-toggle>
        }
      </mat-button-toggle-group>
    }
    @if (d.column !== null) {
      <label
        >of at least
        <mat-form-field><input matInput
          type="number"
          min="2"
          aria-label="Nodes of a region"
          [ngModel]="d.least"
          (change)="setLeast(+$any($event.target).value)" /></mat-form-field>
        nodes</label
      >
      <div class="groups">
        @for (one of groups(); track one.name) {
          <pt-title-fields
            [of]="one.name"
            [usual]="titles()[one.name]"
            [title]="d.titles[one.name] || ''"
            [note]="d.notes[one.name] || ''"
            (titled)="setTitle(one.name, $event)"
            (noted)="setNote(one.name, $event)"
            >{{ one.nodes | count }}</pt-title-fields
          >
        }
      </div>
      @if (!areTitled()) {
        <p>
          <button matButton [ptBusy]="portraying.busy()" (click)="portray()">
            {{ portraying.busy() ? 'Looking for titles …' : 'Find titles' }}
          </button>
        </p>
      }
      @if (portraying.problem(); as text) {
        <p class="error" role="alert">{{ text }}</p>
      }
      <p class="how">
        @if (d.form === 'whole') {
          Nodes far from the rest of their group stay outside of its line.
        } @else {
          Parts of a group that lie apart have lines of their own; scattered nodes have none.
        }
        Without words of yours a group is called by its title, which “Read” suggests from what is typical for it.
      </p>
    }
    @for (one of byHand(); track $index) {
      <div class="line">
        <pt-title-fields
          [of]="one.of"
          [title]="one.title"
          [note]="one.note"
          (titled)="change(one.list, one.at, { title: $event })"
          (noted)="change(one.list, one.at, { note: $event })"
          >{{ one.lead }}</pt-title-fields
        >
        <button matButton [matTooltip]="'Then they can be put into a category and read'" (click)="choose(one.list, one.at)">choose its nodes</button>
        <button matButton (click)="remove(one.list, one.at)">take away</button>
      </div>
    }
    <p><button matButton (click)="draw()">Draw one by hand</button></p>
    @if (d.own.length === 0) {
      <p class="how">To outline nodes of your own choice, choose them on the map (Shift and draw a line round them).</p>
    }
  `,
  styles: `
    .line {
      display: flex;
      align-items: flex-start;
      gap: 8px;
    }
  `,
})
export class OutlineSettings {
  /** The reader goes on on the map. */
  readonly left = output();
  protected readonly map = injectMapEditor();
  protected readonly portraying = stepRun();
  /** Titles of the groups, by their values. */
  protected readonly titles = computed(
    () => this.map.session.titles()[this.map.description().regions.column ?? ''] ?? {},
  );
  protected readonly areTitled = computed(() => Object.keys(this.titles()).length > 0);
  protected readonly forms = [
    ['whole', 'one line round each'],
    ['dense', 'where it lies densely'],
    ['title', 'its title alone'],
  ] as const;
  protected readonly groups = computed(() => {
    const data = this.map.session.data();
    const { column, least } = this.map.description().regions;
    if (!data || column === null || !(column in data.nodes)) return [];
    const count = new Map<string, number>();
    for (const value of Array.from(data.nodes[column] as ArrayLike<string | number>, String))
      count.set(value, (count.get(value) ?? 0) + 1);
    return [...count]
      .map(([name, nodes]) => ({ name, nodes }))
      .filter(({ name, nodes }) => name !== '' && nodes >= least)
      .sort((a, b) => b.nodes - a.nodes)
      .slice(0, LISTED);
  });

  /** Outlines of chosen nodes and drawn lines, to be titled or taken away. */
  protected readonly byHand = computed(() => {
    const { own, strokes } = this.map.description().regions;
    return [
      ...own.map(({ title, note = '', nodes }, at) => ({
        list: 'own' as const,
        at,
        title,
        note,
        lead: formatCount(nodes.length),
        of: 'chosen nodes',
      })),
      ...strokes.map(({ title, note = '' }, at) => ({
        list: 'strokes' as const,
        at,
        title,
        note,
        lead: 'drawn',
        of: 'a drawn line',
      })),
    ];
  });

  protected setLeast(least: number): void {
    if (least >= 2) this.map.set('regions', { least: Math.round(least) });
  }

  protected setTitle(name: string, title: string): void {
    const { [name]: _before, ...others } = this.map.description().regions.titles;
    this.map.set('regions', { titles: title ? { ...others, [name]: title } : others });
  }

  protected setNote(name: string, note: string): void {
    const { [name]: _before, ...others } = this.map.description().regions.notes;
    this.map.set('regions', { notes: note ? { ...others, [name]: note } : others });
  }

  /** Draws portraits of the groups, which give them their titles. */
  protected portray(): void {
    const network = this.map.session.network();
    const { column } = this.map.description().regions;
    if (!network || column === null) return;
    const asked = { network: network.id, column, settings: PortraitSettings.parse({}) };
    this.portraying.start(network.study, 'portray-groups', asked, () => undefined);
  }

  /** The next line drawn on the map stays there; the settings make room for it. */
  protected draw(): void {
    this.map.session.beginDrawing();
    this.left.emit();
  }

  /** Gives one of the chosen nodes' outlines, or of the drawn lines, a title or a note. */
  protected change(
    list: 'own' | 'strokes',
    at: number,
    words: { readonly title: string } | { readonly note: string },
  ): void {
    const before = this.map.description().regions[list];
    const named = before.map((one, i) => (i === at ? { ...one, ...words } : one));
    this.map.set('regions', { [list]: named });
  }

  /** Chooses the nodes of an outline, or those on and within a drawn line where it lies now. */
  protected choose(list: 'own' | 'strokes', at: number): void {
    const { session } = this.map;
    const { own, strokes } = this.map.description().regions;
    const [map, places] = [session.prepared(), session.places()];
    if (!map || !places) return;
    const screen = { x: places.x, y: places.y, radius: map.radius };
    session.chooseNodes(list === 'own' ? own[at].nodes : nodesOfStroke(strokes[at], screen, map.nodes));
    this.left.emit();
  }

  protected remove(list: 'own' | 'strokes', at: number): void {
    this.map.set('regions', { [list]: this.map.description().regions[list].filter((_, i) => i !== at) });
  }
}

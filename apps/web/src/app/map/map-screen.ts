import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { Store } from '@ngrx/store';
import { wholeShown } from '@pebble/contract';
import { work } from '../store/work.reducer';
import { BesideMap } from './canvas/beside-map';
import { CaptionBar } from './panels/caption-bar';
import { ChangePanel } from './panels/change-panel';
import { Drawer } from './drawer/drawer';
import type { DrawerTab } from './drawer/drawer-parts';
import { NoNetwork } from '../shell/no-network';
import { keepInAddress } from './keep-in-address';
import { InsetMap } from './canvas/inset-map';
import { LegendPanel } from './panels/legend-panel';
import { LooksPanel } from './panels/looks-panel';
import { whyAgain } from '../shared/why-again';
import { MapCanvas } from './canvas/map-canvas';
import { MapSession } from './session/map-session';
import { NodeFinder } from './panels/node-finder';
import { PeriodStrip } from './panels/period-strip';
import { openPlateOfAddress } from './plates/open-plate';
import { Plates } from './plates/plates';
import { PlatesPanel } from './plates/plates-panel';
import { ReadingPane } from './drawer/reading-pane';
import { SliceStepper } from './panels/slice-stepper';
import { networkToOpen, wholeOf, wholesIn } from '../shared/slices';

/** What stands in the corner of the map. */
type Panel = 'plates' | 'looks' | 'legend' | 'change';

const PANELS: readonly { readonly panel: Panel; readonly name: string; readonly says: string }[] = [
  { panel: 'plates', name: 'Plates', says: 'States of the map that are kept (P keeps one)' },
  { panel: 'looks', name: 'Looks', says: 'How the map is drawn, kept by names' },
  { panel: 'legend', name: 'Legend', says: 'Where the legend stands, and its words' },
  { panel: 'change', name: 'Change', says: 'Nodes and ties taken out, added or merged by hand' },
];

/** The network as a picture, with its caption over it, what is selected beside it and its tables below. */
@Component({
  selector: 'pt-map-screen',
  imports: [
    MatTooltip,
    MatInput,
    MatFormField,
    MatButton,
    RouterLink,
    BesideMap,
    CaptionBar,
    ChangePanel,
    Drawer,
    InsetMap,
    LegendPanel,
    LooksPanel,
    MapCanvas,
    NoNetwork,
    NodeFinder,
    PeriodStrip,
    PlatesPanel,
    ReadingPane,
    SliceStepper,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './map-screen.html',
  styleUrls: ['./canvas/map-overlays.scss', './map-screen.scss'],
  host: { '(document:keydown)': 'key($event)' },
})
export class MapScreen {
  /** From the address; without it the newest network is opened. */
  readonly network = input<string>();
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly plates = inject(Plates);
  protected readonly session = inject(MapSession);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  /** Networks that are no slices: these are gone through beside. */
  protected readonly choices = computed(() => wholesIn(this.networks()));
  protected readonly whole = computed(() => {
    const network = this.session.network();
    return network ? wholeOf(network) : null;
  });
  protected readonly whyAgain = computed(() => {
    const open = this.networks().find(({ id }) => id === this.session.network()?.id);
    return open?.weave ? whyAgain(open) : '';
  });
  /** Whether the filters leave no node of a network that has some. */
  protected readonly isEmpty = computed(() => {
    const map = this.session.prepared();
    return map !== null && map.nodes.length === 0 && map.network.nodeCount > 0;
  });
  protected readonly waiting = computed(() => {
    const network = this.session.network();
    if (!network) return 'Opening the network …';
    return network.slice ? 'The whole time is arranged first …' : 'Measuring the network …';
  });
  protected readonly canUndo = this.session.canUndo;
  protected readonly canRedo = this.session.canRedo;
  protected readonly drawer = signal<DrawerTab | null>(null);
  protected readonly tall = signal(false);
  protected readonly keysShown = signal(false);
  protected readonly besideShown = signal(false);
  protected readonly timeShown = signal(false);
  /** Whether it is known when the messages of ties were written. */
  protected readonly isDated = computed(
    () =>
      this.session.hasMessages() &&
      this.session.network()?.weave?.what !== 'projection' &&
      'first' in (this.session.data()?.edges ?? {}),
  );
  protected readonly panels = PANELS;
  protected readonly percent = (share: number): number => Math.round(100 * share);
  protected readonly panel = signal<Panel | null>(null);
  /** Whether drawing on the map chooses nodes; for those who have no Shift key. */
  protected readonly choosing = signal(false);
  private readonly canvas = viewChild(MapCanvas);
  private readonly finder = viewChild(NodeFinder);
  protected readonly showsPane = computed(() => this.session.selection() !== null);

  constructor() {
    keepInAddress(this.drawer);
    openPlateOfAddress();
    // What is planned is seen, and where to go on from there.
    const planned = this.session.planned;
    const isPlanned = computed(() => planned().length > 0);
    effect(() => {
      if (isPlanned()) untracked(() => this.panel.set('change'));
    });
    effect(() => {
      const networks = this.networks();
      const open = untracked(this.session.network)?.id;
      const wanted = this.network() ?? networkToOpen(networks, open)?.id;
      const known = networks.find(({ id }) => id === wanted);
      // A network that was just woven is opened once its measures are there.
      if (wanted && (known?.state === 'measured' || !known)) untracked(() => void this.session.open(wanted));
    });
  }

  protected goTo(node: number): void {
    this.session.selectNode(node);
    this.canvas()?.goTo(node);
  }

  protected open(id: string): void {
    const queryParams = { panel: this.drawer() };
    void this.router.navigate(['/studies', this.study()!.id, 'map', id], { queryParams });
  }

  /** Takes all filters away, which can be undone. */
  protected showAll(): void {
    const description = { ...this.session.description(), show: wholeShown };
    this.session.describe(description);
  }

  protected closeTime(): void {
    this.session.passTo(null);
    this.timeShown.set(false);
  }

  protected toggle(panel: Panel): void {
    this.panel.update((open) => (open === panel ? null : panel));
  }

  protected fit(): void {
    this.canvas()?.fit();
  }

  protected zoom(factor: number): void {
    this.canvas()?.zoomBy(factor);
  }

  /** A layout that runs is what is taken back first. */
  protected undo(): void {
    if (this.session.layout().what === 'running') {
      this.session.cancelLayout();
      return;
    }
    this.session.undo();
  }

  protected redo(): void {
    this.session.redo();
  }

  protected key(event: KeyboardEvent): void {
    const inField = (event.target as HTMLElement).matches('input, select, textarea');
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !inField) {
      if (event.shiftKey) this.redo();
      else this.undo();
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a' && !inField) {
      const nodes = [...(this.session.prepared()?.nodes ?? [])];
      this.session.chooseNodes(nodes);
    } else if (inField || event.ctrlKey || event.metaKey || event.altKey) {
      return;
    } else if (event.key === '/') {
      this.finder()?.focus();
    } else if (event.key.toLowerCase() === 'p') {
      void this.plates.keep();
    } else if (event.key === '?') {
      this.keysShown.update((shown) => !shown);
    } else if (event.key === 'Escape') {
      this.keysShown.set(false);
      if (this.timeShown()) this.closeTime();
      this.panel.set(null);
      this.choosing.set(false);
      this.session.endDrawing();
      this.session.clearSelection();
    } else {
      return;
    }
    event.preventDefault();
  }
}

import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { DomSanitizer } from '@angular/platform-browser';
import { Router, RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import {
  buildScene,
  counted,
  figureSize,
  fitView,
  marginFor,
  RASTER_FROM,
  themeOn,
  tiesIn,
  paintSvg,
  type EmbeddedFont,
  type Ground,
  type Letters,
  type Scene,
  type View,
} from '@pebble/core';
import { addressOf, ROUTES } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api, pathOf } from '../api/api';
import { MapSession } from '../map/session/map-session';
import { wholesIn } from '../shared/slices';
import { Notices } from '../store/notices';
import { work } from '../store/work.reducer';
import { WorkActions } from '../store/work.actions';
import { loadFonts, loadFurtherFonts } from './fonts';
import { loadLetters } from './letters';
import { NoNetwork } from '../shell/no-network';
import { LargePicture } from './large-picture';
import { pngFromSvg, saveFile } from '../shared/png';
import { Busy } from '../shared/busy';
import { NetworkChoice } from '../shared/network-choice';

/** Sizes of names, ties and legend beside those on the screen. */
const SIZES = [
  { factor: 0.75, words: 'smaller, for a poster' },
  { factor: 1, words: 'as on the screen' },
  { factor: 1.35, words: 'larger, for a page' },
  { factor: 1.8, words: 'much larger, for a column or a slide' },
];

/** The map as a figure with legend and caption, and the network as data. */
@Component({
  selector: 'pt-publish',
  imports: [
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    Busy,
    FormsModule,
    NetworkChoice,
    NoNetwork,
    RouterLink,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './publish.html',
  styleUrl: './publish.scss',
})
export class Publish {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly session = inject(MapSession);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  /** From the address; without it the network that is open, or the newest. */
  readonly network = input<string>();
  private readonly router = inject(Router);
  protected readonly width = signal(1800);
  protected readonly resolution = signal(300);
  protected readonly withCaption = signal(true);
  /** Whether letters are shapes, which look the same everywhere, or text, which can be edited. */
  protected readonly writing = signal<'shapes' | 'text'>('shapes');
  /** How large names, ties and legend are beside what they are on the screen. */
  protected readonly lettering = signal(1);
  protected readonly background = signal<Ground>('paper');
  /** Whether so many ties that nobody tells them apart are one picture in the figure, or lines each. */
  protected readonly painted = signal(true);
  private readonly ties = computed(() => {
    const scene = this.scene();
    return scene ? tiesIn(scene) : 0;
  });
  protected readonly tiesPhrase = computed(() => counted(this.ties(), 'tie'));
  protected readonly areMany = computed(() => this.ties() >= RASTER_FROM);
  private readonly largePicture = new LargePicture();
  private readonly largeAddress = signal<string | null>(null);
  protected readonly sizes = SIZES;
  protected readonly part = signal<'view' | 'whole'>('view');
  protected readonly busy = signal(false);
  protected readonly isArranging = computed(() => this.session.layout().what === 'running');
  /** How far that is, behind a comma. */
  protected readonly arranged = computed(() => {
    const layout = this.session.layout();
    return layout.what === 'running' && layout.done ? `, ${layout.done}` : '';
  });
  /** Ties are still being drawn together; a figure of now would not be the one that is meant. */
  protected readonly isBundling = computed(() => this.session.bundling.state().what === 'running');
  private readonly fonts = toSignal<readonly EmbeddedFont[]>(loadFonts(), { initialValue: null as never });
  private readonly furtherFonts = signal<readonly EmbeddedFont[]>([]);
  private readonly letters = signal<Letters | null>(null);

  private readonly scene = computed<Scene | null>(() => {
    const map = this.session.prepared();
    // Each round of an arrangement would be another figure.
    const places = this.isArranging() ? null : this.session.places();
    if (!map || !places) return null;
    const onScreen = this.session.size();
    // The picture is made for a smaller page and enlarged: places stay, what has a size of its own grows.
    const lettering = this.lettering();
    const size = { width: onScreen.width / lettering, height: onScreen.height / lettering };
    const margin = marginFor(map.description.legend.corner);
    const whole = fitView(places.x, places.y, map.radius, map.nodes, size, margin);
    const seen = this.session.view();
    const view = this.part() === 'whole' || !seen ? whole : enlarged(seen, 1 / lettering);
    return buildScene({
      map,
      x: places.x,
      y: places.y,
      view,
      size,
      theme: themeOn(this.background()),
      focus: this.part() === 'whole' ? null : this.session.focus(),
    });
  });
  private readonly pixels = computed(() => Math.min(8000, Math.max(300, Math.round(this.width()) || 1800)));
  private readonly options = computed(() => ({
    width: this.pixels(),
    caption: this.withCaption() ? this.session.captionLine() : undefined,
    ink: themeOn(this.background()).ink,
    ...(this.writing() === 'shapes'
      ? { letters: this.letters() }
      : { fonts: [...(this.fonts() ?? []), ...this.furtherFonts()] }),
    transparent: this.background() === 'none',
    under: this.areMany() ? this.largeAddress() : null,
  }));
  protected readonly size = computed(() => {
    const scene = this.scene();
    return scene ? figureSize(scene, this.options()) : null;
  });
  private readonly svg = computed(() => {
    const scene = this.scene();
    const isReady =
      (this.writing() === 'shapes' ? this.letters() : this.fonts()) &&
      (!this.areMany() || this.largeAddress());
    return scene && isReady ? paintSvg(scene, this.options()) : null;
  });
  private readonly address = signal<string | null>(null);
  protected readonly preview = computed(() => {
    const address = this.address();
    // The address is a blob that this page made itself.
    return address ? this.sanitizer.bypassSecurityTrustUrl(address) : null;
  });
  protected readonly print = computed(() => {
    const size = this.size();
    return size
      ? `${((size.width / this.resolution()) * 2.54).toFixed(1)} × ${((size.height / this.resolution()) * 2.54).toFixed(1)} cm in print`
      : '';
  });

  constructor() {
    inject(DestroyRef).onDestroy(() => this.largePicture.stop());
    effect(() => {
      const scene = this.scene();
      this.largePicture.stop();
      this.largeAddress.set(null);
      if (!scene || !this.areMany()) return;
      const ratio = this.pixels() / scene.width;
      this.largePicture.paint(
        scene,
        ratio,
        (address) => this.largeAddress.set(address),
        (error) => this.fail(error),
      );
    });
    effect((onCleanup) => {
      const scene = this.scene();
      if (!scene) return;
      let isWanted = true;
      onCleanup(() => (isWanted = false));
      const caption = { text: this.session.captionLine(), face: 'serif' as const };
      const texts = [...scene.texts, ...scene.legend.texts, caption];
      if (this.writing() === 'text')
        void loadFurtherFonts(texts.map(({ text }) => text)).then((fonts) => {
          if (isWanted) this.furtherFonts.set(fonts);
        });
      else
        void loadLetters(texts).then(
          (letters) => {
            if (isWanted) this.letters.set(letters);
          },
          (error: Error) => this.fail(error),
        );
    });
    effect(() => {
      const [first] = wholesIn(this.networks());
      const open = untracked(this.session.network)?.id;
      const wanted = this.network() ?? open ?? first?.id;
      // The address says which network it is, so that it is the same after a reload.
      if (wanted === undefined) return;
      if (this.network() === undefined) untracked(() => this.choose(wanted, true));
      else if (open !== wanted) untracked(() => void this.session.open(wanted));
    });
    effect((onCleanup) => {
      const svg = this.svg();
      if (!svg) return void this.address.set(null);
      const address = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }));
      this.address.set(address);
      onCleanup(() => URL.revokeObjectURL(address));
    });
  }

  /** Shows another network; its address takes the place of this one where this one named none. */
  protected choose(network: string, replaceUrl = false): void {
    const study = this.study();
    if (study) void this.router.navigate(['/studies', study.id, 'publish', network], { replaceUrl });
  }

  protected async figure(format: 'svg' | 'png'): Promise<void> {
    const svg = this.svg();
    const size = this.size();
    const network = this.session.network();
    if (!svg || !size || !network) return;
    this.busy.set(true);
    try {
      const file =
        format === 'svg'
          ? new Blob([this.withLines() ?? svg], { type: 'image/svg+xml' })
          : await pngFromSvg(svg, size, this.resolution());
      saveFile(file, `${network.name}.${format}`);
      this.api
        .step(network.study, 'export-figure', {
          network: network.id,
          format,
          ...size,
          resolution: this.resolution(),
          caption: this.session.captionLine(),
        })
        .subscribe({ error: (error: Error) => this.fail(error) });
      this.notices.say(`The figure was saved as ${format.toUpperCase()}; the logbook has the step.`);
    } catch (error) {
      this.fail(error as Error);
    } finally {
      this.busy.set(false);
    }
  }

  /** The figure with a line for each of its many ties, where that is wanted; null elsewhere. */
  private withLines(): string | null {
    const scene = this.scene();
    if (!scene || !this.areMany() || this.painted()) return null;
    return paintSvg(scene, { ...this.options(), under: null });
  }

  protected data(format: 'graphml' | 'csv-nodes' | 'csv-ties'): void {
    const network = this.session.network();
    if (!network) return;
    this.api.step(network.study, 'export-network', { network: network.id, format }).subscribe({
      next: () => {
        const link = document.createElement('a');
        link.href = addressOf(ROUTES.exportNetwork, { ...pathOf(network), networkFormat: format });
        link.download = '';
        link.click();
      },
      error: (error: Error) => this.fail(error),
    });
  }

  private fail(error: Error): void {
    this.store.dispatch(WorkActions.failed({ message: error.message }));
  }
}

/** The same part of the map on a page of another size. */
function enlarged({ scale, x, y }: View, by: number): View {
  return { scale: scale * by, x: x * by, y: y * by };
}

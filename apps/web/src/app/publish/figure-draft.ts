import { computed, DestroyRef, effect, inject, Injectable, linkedSignal, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { FigureFormat } from '@pebble/contract';
import {
  buildScene,
  captionHeight,
  counted,
  figureSize,
  figureText,
  fitView,
  marginFor,
  paintSvg,
  RASTER_FROM,
  themeOn,
  tiesIn,
  type EmbeddedFont,
  type FigureText,
  type Ground,
  type Letters,
  type Scene,
  type View,
} from '@pebble/core';
import { MapSession } from '../map/session/map-session';
import { pngFromSvg, saveFile } from '../shared/png';
import { pointsOf, readableLettering, type FigurePurpose } from './figure-sizes';
import { loadFonts, loadFurtherFonts } from './fonts';
import { LargePicture } from './large-picture';
import { loadLetters } from './letters';
import { pdfOf } from './pdf';

/** Sizes of names, ties and legend beside those on the screen. */
export const SIZES = [
  { factor: 0.75, words: 'smaller, for a poster' },
  { factor: 1, words: 'as on the screen' },
  { factor: 1.35, words: 'larger, for a page' },
  { factor: 1.8, words: 'much larger, for a column or a slide' },
];

/** A figure of the map that is open: its settings, and what comes of them. */
@Injectable()
export class FigureDraft {
  private readonly session = inject(MapSession);
  /** What the figure is for; null for a size of one's own. */
  readonly purpose = signal<FigurePurpose | null>(null);
  readonly width = signal(1800);
  readonly resolution = signal(300);
  readonly withCaption = signal(true);
  /** Whether letters are shapes, which look the same everywhere, or text, which can be edited. */
  readonly writing = signal<'shapes' | 'text'>('shapes');
  /** How large names, ties and legend are beside what they are on the screen. */
  readonly lettering = signal(1);
  readonly background = signal<Ground>('paper');
  /** Whether so many ties that nobody tells them apart are one picture in the figure, or lines each. */
  readonly painted = signal(true);
  private readonly ties = computed(() => {
    const scene = this.scene();
    return scene ? tiesIn(scene) : 0;
  });
  readonly tiesPhrase = computed(() => counted(this.ties(), 'tie'));
  readonly areMany = computed(() => this.ties() >= RASTER_FROM);
  private readonly largePicture = new LargePicture();
  private readonly largeAddress = signal<string | null>(null);
  /** Lettering that is none of the usual ones. */
  readonly ownLettering = computed(() =>
    SIZES.some(({ factor }) => factor === this.lettering()) ? null : this.lettering(),
  );
  readonly part = signal<'view' | 'whole'>('view');
  readonly isArranging = computed(() => this.session.layout().what === 'running');
  /** How far that is, behind a comma. */
  readonly arranged = computed(() => {
    const layout = this.session.layout();
    return layout.what === 'running' && layout.done ? `, ${layout.done}` : '';
  });
  /** Ties are still being drawn together; a figure of now would not be the one that is meant. */
  readonly isBundling = computed(() => this.session.bundling.state().what === 'running');
  private readonly fonts = toSignal<readonly EmbeddedFont[]>(loadFonts(), { initialValue: null as never });
  private readonly furtherFonts = signal<readonly EmbeddedFont[]>([]);
  private readonly letters = signal<Letters | null>(null);

  private readonly caption = computed(() => (this.withCaption() ? this.session.captionLine() : undefined));
  private readonly scene = computed<Scene | null>(() => {
    const map = this.session.prepared();
    // Each round of an arrangement would be another figure.
    const places = this.isArranging() ? null : this.session.places();
    if (!map || !places) return null;
    const onScreen = this.session.size();
    // The picture is made for a smaller page and enlarged: places stay, what has a size of its own grows.
    const lettering = this.lettering();
    const width = onScreen.width / lettering;
    // A slide has its form with the caption.
    const form = this.purpose()?.aspect ?? null;
    const height =
      form === null ? onScreen.height / lettering : width / form - captionHeight(width, this.caption());
    const size = { width, height };
    const moved = (height * lettering - onScreen.height) / 2;
    const margin = marginFor(map.description.legend.corner);
    const whole = fitView(places.x, places.y, map.radius, map.nodes, size, margin);
    const seen = this.session.view();
    const view =
      this.part() === 'whole' || !seen ? whole : enlarged({ ...seen, y: seen.y + moved }, 1 / lettering);
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
  /** What is told of it to those who cannot see it, as the map suggests. */
  readonly suggested = computed(() => {
    const network = this.session.network();
    const map = this.session.prepared();
    return network && map ? figureText(network, map, this.session.captionLine()) : null;
  });
  /** Written otherwise; of another network the suggestion holds again. */
  readonly ownTold = linkedSignal<string | undefined, FigureText | null>({
    source: () => this.session.network()?.id,
    computation: () => null,
  });
  readonly told = computed(() => this.ownTold() ?? this.suggested());
  private readonly options = computed(() => ({
    told: this.told() ?? undefined,
    width: this.pixels(),
    caption: this.caption(),
    ink: themeOn(this.background()).ink,
    ...(this.writing() === 'shapes'
      ? { letters: this.letters() }
      : { fonts: [...(this.fonts() ?? []), ...this.furtherFonts()] }),
    transparent: this.background() === 'none',
    under: this.areMany() ? this.largeAddress() : null,
  }));
  readonly size = computed(() => {
    const scene = this.scene();
    return scene ? figureSize(scene, this.options()) : null;
  });
  readonly svg = computed(() => {
    const scene = this.scene();
    const isReady =
      (this.writing() === 'shapes' ? this.letters() : this.fonts()) &&
      (!this.areMany() || this.largeAddress());
    return scene && isReady ? paintSvg(scene, this.options()) : null;
  });
  /** Of the smallest letters, in points of print. */
  readonly smallest = computed(() => {
    const scene = this.scene();
    return scene ? pointsOf(smallestIn(scene), scene.width, this.pixels(), this.resolution()) : null;
  });
  readonly print = computed(() => {
    const size = this.size();
    return size
      ? `${((size.width / this.resolution()) * 2.54).toFixed(1)} × ${((size.height / this.resolution()) * 2.54).toFixed(1)} cm in print`
      : '';
  });
  /** Why something could not be made; null where all could. */
  readonly problem = signal<Error | null>(null);

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
        (error) => this.problem.set(error),
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
          (error: Error) => this.problem.set(error),
        );
    });
  }

  /** Takes the size that a figure for this has, with letters that can be read. */
  setPurpose(purpose: FigurePurpose | null): void {
    this.purpose.set(purpose);
    if (!purpose) return;
    const scene = this.scene();
    this.width.set(purpose.width);
    this.resolution.set(purpose.resolution);
    const onScreen = this.session.size().width;
    // The letters of a scene are those of the screen, whatever page it is for.
    if (scene) this.lettering.set(readableLettering(purpose, smallestIn(scene), onScreen));
  }

  /** A size of one's own is for nothing else any more. */
  setOwnSize({ width, resolution }: Partial<Pick<FigurePurpose, 'width' | 'resolution'>>): void {
    this.purpose.set(null);
    if (width !== undefined) this.width.set(width);
    if (resolution !== undefined) this.resolution.set(resolution);
  }

  /** The figure as a file; null while it is not ready. */
  async fileOf(format: FigureFormat): Promise<Blob | null> {
    const [svg, size] = [this.svg(), this.size()];
    if (!svg || !size) return null;
    switch (format) {
      case 'svg':
        return new Blob([this.withLines() ?? svg], { type: 'image/svg+xml' });
      case 'png':
        return pngFromSvg(svg, size, this.resolution(), this.toldWords());
      case 'pdf':
        return this.pdf();
    }
  }

  private toldWords(): string {
    const told = this.told();
    return told ? `${told.short}\n\n${told.long}` : '';
  }

  /** What is told of the figure, as a file beside it. */
  saveTold(): void {
    const name = this.session.network()?.name ?? 'figure';
    saveFile(new Blob([`${this.toldWords()}\n`], { type: 'text/plain;charset=utf-8' }), `${name}.txt`);
  }

  /** Its letters are letters; many ties are a picture, with the nodes. */
  private async pdf(): Promise<Blob | null> {
    const scene = this.scene();
    const network = this.session.network();
    if (!scene || !network) return null;
    const caption = this.session.captionLine();
    return pdfOf(scene, {
      width: this.pixels(),
      resolution: this.resolution(),
      caption: this.caption(),
      ink: themeOn(this.background()).ink,
      transparent: this.background() === 'none',
      under: this.areMany() ? this.largeAddress() : null,
      title: network.name,
      told: this.told() ?? { short: network.name, long: caption },
      made: new Date(network.createdAt),
    });
  }

  /** The figure with a line for each of its many ties, where that is wanted; null elsewhere. */
  private withLines(): string | null {
    const scene = this.scene();
    if (!scene || !this.areMany() || this.painted()) return null;
    return paintSvg(scene, { ...this.options(), under: null });
  }
}

/** The size of the smallest letters, in pixels of the scene. */
function smallestIn({ texts, legend }: Scene): number {
  return Math.min(...[...texts, ...legend.texts].map(({ size }) => size));
}

/** The same part of the map on a page of another size. */
function enlarged({ scale, x, y }: View, by: number): View {
  return { scale: scale * by, x: x * by, y: y * by };
}

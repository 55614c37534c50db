import { computed, DestroyRef, effect, inject, Injectable, Injector, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { FigureFormat } from '@pebble/contract';
import {
  buildScene,
  captionHeight,
  captionText,
  counted,
  figureSize,
  figureText,
  fitView,
  letterOf,
  marginFor,
  pageCaption,
  paintSvg,
  platePage,
  textsOfScene,
  themeOn,
  tiesIn,
  withNames,
  type EmbeddedFont,
  type FigureText,
  type Ground,
  type Letters,
  type PreparedMap,
  type Scene,
  type View,
} from '@pebble/core';
import { MapSession } from '../map/session/map-session';
import { pngFromSvg } from '../shared/png';
import { saveFile } from '../shared/save-file';
import { pointsOf, readableLettering, type FigurePurpose } from './figure-sizes';
import { loadFonts, loadFurtherFonts } from './fonts';
import { hasManyTies, LargePictures, picturesOf, withPictures } from './large-pictures';
import { PlateParts, type DrawnPlate } from './plate-parts';
import { loadLetters } from './letters';
import { pdfOf } from './pdf';
import type { PlacedText } from '../shared/leaks/leak-guard';
import { PublishedNames } from './people/published-names';
import { draftAbout } from '../shared/draft';
import { until } from '../shared/until';

/** Sizes of names, ties and legend beside those on the screen. */
export const SIZES = [
  { factor: 0.75, words: 'smaller, for a poster' },
  { factor: 1, words: 'as on the screen' },
  { factor: 1.35, words: 'larger, for a page' },
  { factor: 1.8, words: 'much larger, for a column or a slide' },
];

/** In pixels, and pixels to the inch; what is left out stays. */
interface OwnSize {
  readonly width?: number;
  readonly height?: number | null;
  readonly resolution?: number;
}

/** A figure of the map that is open: its settings, and what comes of them. */
@Injectable()
export class FigureDraft {
  private readonly session = inject(MapSession);
  private readonly plates = inject(PlateParts);
  private readonly names = inject(PublishedNames);
  private readonly injector = inject(Injector);
  /** What the figure is for; null for a size of one's own. */
  readonly purpose = signal<FigurePurpose | null>(null);
  readonly width = signal(1800);
  /** In pixels; null for as high as the map is. */
  readonly ownHeight = signal<number | null>(null);
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
    return scene ? picturesOf(scene).reduce((sum, one) => sum + tiesIn(one), 0) : 0;
  });
  readonly tiesPhrase = computed(() => counted(this.ties(), 'tie'));
  readonly areMany = computed(() => {
    const scene = this.scene();
    return scene !== null && picturesOf(scene).some(hasManyTies);
  });
  private readonly largePictures = new LargePictures();
  /** Of each picture on the page, null for those that need none; null before they are painted. */
  private readonly addresses = signal<readonly (string | null)[] | null>(null);
  /** Lettering that is none of the usual ones. */
  readonly ownLettering = computed(() =>
    SIZES.some(({ factor }) => factor === this.lettering()) ? null : this.lettering(),
  );
  /** What of the map is on it: what is seen, the whole, or plates beside each other. */
  readonly part = signal<'view' | 'whole' | 'plates'>('view');
  readonly isPage = computed(() => this.part() === 'plates');
  /** Plates beside each other; null for as many as go well. */
  readonly columns = signal<number | null>(null);
  readonly across = computed(() => this.columns() ?? Math.ceil(Math.sqrt(this.plates.ids().length)));
  /** A caption for the page in words of one's own; of other plates the suggestion holds again. */
  readonly ownCaption = draftAbout<string | null>(
    () => this.plates.ids(),
    () => null,
  );
  readonly isArranging = computed(() => this.session.layout().what === 'running');
  /** How far that is, behind a comma. */
  readonly arranged = computed(() => {
    const layout = this.session.layout();
    return layout.what === 'running' && layout.done ? `, ${layout.done}` : '';
  });
  /** Not while ties are still being drawn together: a figure of now would not be the one that is meant. */
  readonly isReady = computed(() => this.isPage() || this.session.bundling.state().what !== 'running');
  private readonly fonts = toSignal<readonly EmbeddedFont[]>(loadFonts(), { initialValue: null as never });
  private readonly furtherFonts = signal<readonly EmbeddedFont[]>([]);
  private readonly letters = signal<Letters | null>(null);

  /** The map that is open, with people called as they are in what is published; null while that is not known. */
  readonly map = computed<PreparedMap | null>(() => {
    const [network, map] = [this.session.network(), this.session.prepared()];
    return network && map && this.published(network.id, map);
  });
  /** The plates of the page, in the same way. */
  readonly parts = computed<readonly DrawnPlate[] | null>(() => {
    const parts = this.plates.parts();
    const named = parts?.flatMap((part) => {
      const map = this.published(part.network.id, part.map);
      return map ? [{ ...part, map }] : [];
    });
    return named && named.length === parts?.length ? named : null;
  });

  private published(network: string, map: PreparedMap): PreparedMap | null {
    const names = this.names.of(network);
    if (!names) return null;
    return names.names.length === map.labels.length
      ? withNames(map, names.names)
      : names.names.length === 0
        ? map
        : null;
  }

  private readonly mapCaption = computed(() => {
    const map = this.map();
    return map ? captionText(this.session.captionFor(map)) : this.session.captionLine();
  });

  /** The sentence under it. */
  readonly captionLine = computed(() =>
    this.isPage()
      ? (this.ownCaption() ??
        pageCaption((this.parts() ?? []).map(({ title, plate }) => ({ title, caption: plate.caption }))))
      : this.mapCaption(),
  );
  private readonly caption = computed(() => (this.withCaption() ? this.captionLine() : undefined));
  readonly scene = computed<Scene | null>(() => (this.isPage() ? this.pageScene() : this.mapScene()));
  private readonly pageScene = computed<Scene | null>(() => {
    const parts = this.parts();
    if (!parts) return null;
    const width = this.session.size().width / this.lettering();
    const form = this.form();
    return platePage(parts, {
      width,
      columns: this.across(),
      theme: themeOn(this.background()),
      height: form === null ? null : Math.max(120, width / form - captionHeight(width, this.caption())),
    });
  });
  private readonly mapScene = computed<Scene | null>(() => {
    const map = this.map();
    // Each round of an arrangement would be another figure.
    const places = this.isArranging() ? null : this.session.places();
    if (!map || !places) return null;
    const onScreen = this.session.size();
    // The picture is made for a smaller page and enlarged: places stay, what has a size of its own grows.
    const lettering = this.lettering();
    const width = onScreen.width / lettering;
    // A slide has its form with the caption.
    const form = this.form();
    const height =
      form === null
        ? onScreen.height / lettering
        : Math.max(120, width / form - captionHeight(width, this.caption()));
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
  /** Width over height of the whole figure, where its purpose, or somebody, says it; null elsewhere. */
  private readonly form = computed(() => {
    const height = this.ownHeight();
    return this.purpose()?.aspect ?? (height === null ? null : this.pixels() / height);
  });
  private readonly pixels = computed(() => Math.min(8000, Math.max(300, Math.round(this.width()) || 1800)));
  /** What is told of it to those who cannot see it, as the map suggests. */
  readonly suggested = computed(() => {
    if (this.isPage()) return toldOfPage(this.parts() ?? [], this.captionLine());
    const network = this.session.network();
    const map = this.map();
    return network && map ? figureText(network, map, this.mapCaption()) : null;
  });
  /** Written otherwise; of another network the suggestion holds again. */
  readonly ownTold = draftAbout<FigureText | null>(
    () => (this.isPage() ? this.plates.ids() : this.session.network()?.id),
    () => null,
  );
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
    under: this.isPage() ? null : (this.addresses()?.[0] ?? null),
  }));
  readonly size = computed(() => {
    const scene = this.scene();
    return scene ? figureSize(scene, this.options()) : null;
  });
  readonly svg = computed(() => {
    const scene = this.scene();
    const isReady =
      (this.writing() === 'shapes' ? this.letters() : this.fonts()) && this.addresses() !== null;
    return scene && isReady ? paintSvg(withPictures(scene, this.addresses()!), this.options()) : null;
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
    inject(DestroyRef).onDestroy(() => this.largePictures.stop());
    effect(() => {
      this.names.beside.set(this.plates.onPage().map(({ network }) => network));
    });
    effect(() => {
      const scene = this.scene();
      this.largePictures.stop();
      this.addresses.set(null);
      if (!scene) return;
      this.largePictures.paint(
        picturesOf(scene),
        this.pixels() / scene.width,
        (addresses) => this.addresses.set(addresses),
        (error) => this.problem.set(error),
      );
    });
    effect(() => {
      const problem = this.plates.problem();
      if (problem) this.problem.set(problem);
    });
    effect((onCleanup) => {
      const scene = this.scene();
      if (!scene) return;
      let isWanted = true;
      onCleanup(() => (isWanted = false));
      const caption = { text: this.captionLine(), face: 'serif' as const };
      const texts = [...textsOfScene(scene), caption];
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

  /** What its files are called. */
  get name(): string {
    const [first, ...more] = this.isPage() ? this.plates.onPage() : [];
    if (first)
      return more.length > 0 ? `${first.title} and ${counted(more.length, 'other plate')}` : first.title;
    return this.session.network()?.name ?? 'figure';
  }

  /** Takes the size that a figure for this has, with letters that can be read. */
  setPurpose(purpose: FigurePurpose | null): void {
    this.purpose.set(purpose);
    this.ownHeight.set(null);
    if (!purpose) return;
    const scene = this.scene();
    this.width.set(purpose.width);
    this.resolution.set(purpose.resolution);
    const onScreen = this.session.size().width;
    // The letters of a scene are those of the screen, whatever page it is for.
    if (scene) this.lettering.set(readableLettering(purpose, smallestIn(scene), onScreen));
  }

  /** A size of one's own is for nothing else any more. */
  setOwnSize({ width, height, resolution }: OwnSize): void {
    this.purpose.set(null);
    if (width !== undefined) this.width.set(width);
    if (height !== undefined) this.ownHeight.set(height);
    if (resolution !== undefined) this.resolution.set(resolution);
  }

  /** Waits until all of it is of now: names may be read anew, or ties painted, just when somebody presses. Throws why it cannot be made. */
  async whenMade(): Promise<void> {
    const isMade = (): boolean => this.svg() !== null && this.names.isCurrent();
    const why = (): string | null => this.names.error() ?? this.problem()?.message ?? null;
    await until(() => isMade() || why() !== null, this.injector);
    if (!isMade()) throw new Error(why()!);
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

  /** All that can be read in its files, each with its place. */
  writtenOn(): PlacedText[] {
    const scene = this.scene();
    const told = this.told();
    return [
      { place: 'name of the file', text: this.name },
      ...(scene ? textsOfScene(scene).map(({ text }) => ({ place: 'on the picture', text })) : []),
      { place: 'caption', text: this.captionLine() },
      { place: 'told in a sentence', text: told?.short ?? '' },
      { place: 'told of what can be read', text: told?.long ?? '' },
    ];
  }

  private toldWords(): string {
    const told = this.told();
    return told ? `${told.short}\n\n${told.long}` : '';
  }

  /** What is told of the figure, as a file beside it. */
  saveTold(): void {
    const { name } = this;
    saveFile(new Blob([`${this.toldWords()}\n`], { type: 'text/plain;charset=utf-8' }), `${name}.txt`);
  }

  /** Its letters are letters; many ties are a picture, with the nodes. */
  private async pdf(): Promise<Blob | null> {
    const scene = this.scene();
    const network = this.session.network();
    if (!scene || !network) return null;
    const caption = this.captionLine();
    return pdfOf(withPictures(scene, this.addresses() ?? []), {
      width: this.pixels(),
      resolution: this.resolution(),
      caption: this.caption(),
      ink: themeOn(this.background()).ink,
      transparent: this.background() === 'none',
      under: this.isPage() ? null : (this.addresses()?.[0] ?? null),
      title: this.name,
      told: this.told() ?? { short: this.name, long: caption },
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
function smallestIn(scene: Scene): number {
  return textsOfScene(scene).reduce((least, { size }) => Math.min(least, size), Infinity);
}

/** What is told of a page of plates to those who cannot see it. */
function toldOfPage(parts: readonly DrawnPlate[], caption: string): FigureText {
  const of = parts.map(({ network, map, plate }) => figureText(network, map, plate.caption));
  return {
    short: `${counted(parts.length, 'map')} on a page: ${parts.map(({ title }, i) => `${letterOf(i)}, ${title}`).join('; ')}.`,
    long: [caption, ...of.map(({ short, long }, i) => `${letterOf(i)}. ${short} ${long}`)].join(' '),
  };
}

/** The same part of the map on a page of another size. */
function enlarged({ scale, x, y }: View, by: number): View {
  return { scale: scale * by, x: x * by, y: y * by };
}

/** What a figure is for, and so how large it is. */
export interface FigurePurpose {
  readonly words: string;
  /** In pixels. */
  readonly width: number;
  /** Pixels to the inch. */
  readonly resolution: number;
  /** Width over height of the figure; null for that of the map on the screen. */
  readonly aspect: number | null;
  /** The least size of letters, in points. */
  readonly letters: number;
}

/** Smaller ones are hard to read in print: common practice of journals is 6 to 7 points. */
export const IN_PRINT = 6.5;
/** On a slide as large as a screen of 20 inches; common practice is more yet for what stands alone. */
const ON_SLIDES = 13;

const MILLIMETRES = 25.4;

/** @param width in millimetres */
function printed(
  words: string,
  width: number,
  resolution: number,
  height: number | null = null,
): FigurePurpose {
  return {
    words,
    width: inPixels(width, resolution),
    resolution,
    aspect: height === null ? null : width / height,
    letters: IN_PRINT,
  };
}

/** Widths of columns are common practice of journals; sheets are those of ISO 216 across, with room for margins and caption. */
export const PURPOSES: readonly FigurePurpose[] = [
  printed('one column of a page, 85 mm', 85, 300),
  printed('two columns of a page, 178 mm', 178, 300),
  printed('a page, A4 across', 267, 300, 168),
  { words: 'a slide, 16:9', width: 1920, resolution: 96, aspect: 16 / 9, letters: ON_SLIDES },
  printed('a poster, A3', 390, 200, 250),
  printed('a poster, A2', 564, 150, 370),
  printed('a poster, A1', 811, 150, 540),
  printed('a poster, A0', 1159, 150, 780),
];

export function inPixels(millimetres: number, resolution: number): number {
  return Math.round((millimetres / MILLIMETRES) * resolution);
}

/** To a tenth. */
export function inMillimetres(pixels: number, resolution: number): number {
  return Math.round((pixels / resolution) * MILLIMETRES * 10) / 10;
}

/** Lettering has these bounds. */
const [LEAST, MOST] = [0.5, 3];

/**
 * How large letters are to be beside those on the screen, so that the smallest can be read.
 * @param smallest size of the smallest letters on the screen, in its pixels
 * @param onScreen width of the map there
 */
export function readableLettering(
  { width, resolution, letters }: Pick<FigurePurpose, 'width' | 'resolution' | 'letters'>,
  smallest: number,
  onScreen: number,
): number {
  const factor = letters / pointsOf(smallest, onScreen, width, resolution);
  return Math.round(100 * Math.min(MOST, Math.max(LEAST, factor))) / 100;
}

/** The size of letters in print, in points. @param page width of the picture for which the size was given */
export function pointsOf(size: number, page: number, width: number, resolution: number): number {
  return ((size * width) / page / resolution) * 72;
}

import type { FigureText } from '../description/figureText';
import type { Scene, TextMark } from '../scene/scene';
import type { EmbeddedFont } from '../style/fonts';
import type { Letters } from '../style/letters';
import { wrapText } from '../style/textWidth';

export interface FigureOptions {
  /** Width of the picture in pixels; the scene is scaled to it. */
  readonly width?: number;
  /** The sentence under the picture. */
  readonly caption?: string;
  readonly ink?: string;
  /** What is told of it to those who cannot see it. */
  readonly told?: FigureText;
  readonly fonts?: readonly EmbeddedFont[];
  /** Draws letters as shapes; without it they are text, which needs its fonts. */
  readonly letters?: Letters | null;
  /** The ties as a picture of the whole scene, by its address, where they are too many to be lines each. */
  readonly ties?: string | null;
  /** All that lies below the names as such a picture, but for pictures of nodes. */
  readonly under?: string | null;
  /** Whether the ground is left out. */
  readonly transparent?: boolean;
}

const CAPTION_SIZE = 15;
const CAPTION_LINE = 21;
const CAPTION_SIDE = 22;

/** Height that the caption takes below a picture of this width, in pixels of the scene. */
export function captionHeight(width: number, caption: string | undefined): number {
  const lines = captionLines(width, caption).length;
  return lines > 0 ? lines * CAPTION_LINE + 26 : 0;
}

function captionLines(width: number, caption: string | undefined): string[] {
  return caption ? wrapText(caption, CAPTION_SIZE, 'serif', width - 2 * CAPTION_SIDE) : [];
}

/** Size of the finished figure in pixels. */
export function figureSize(
  scene: Scene,
  options: Pick<FigureOptions, 'width' | 'caption'>,
): { width: number; height: number } {
  const height = scene.height + captionHeight(scene.width, options.caption);
  const width = options.width ?? scene.width;
  return { width, height: Math.round((height * width) / scene.width) };
}

/** The caption below the picture, line by line. */
export function captionMarks(
  scene: Scene,
  { caption, ink }: Pick<FigureOptions, 'caption' | 'ink'>,
): TextMark[] {
  return captionLines(scene.width, caption).map((text, i) => ({
    text,
    x: CAPTION_SIDE,
    y: scene.height + 22 + i * CAPTION_LINE,
    size: CAPTION_SIZE,
    face: 'serif',
    anchor: 'start',
    fill: ink ?? '#1E2A32',
    halo: null,
    alpha: 1,
  }));
}

/** Where a text begins that is so wide. */
export function leftOf({ x, anchor }: Pick<TextMark, 'x' | 'anchor'>, width: number): number {
  if (anchor === 'start') return x;
  return anchor === 'middle' ? x - width / 2 : x - width;
}

import type { TextMark } from '../scene/scene';

/** A text as one shape, its base line at 0, beginning at 0. */
export interface LetterShape {
  /** In the form of the attribute `d` of an SVG path. */
  readonly d: string;
  readonly width: number;
}

/** Draws a text as a shape, so that it looks the same where its font is not at hand. */
export type Letters = (mark: Pick<TextMark, 'text' | 'face' | 'size'>) => LetterShape;

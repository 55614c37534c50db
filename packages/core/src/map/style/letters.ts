import type { TextMark } from '../scene/scene';

/** A text as one shape, its base line at 0, beginning at 0. */
export interface LetterShape {
  /** In the form of the attribute `d` of an SVG path. */
  readonly d: string;
  readonly width: number;
  /** Its stretches in one font each, from left to right. */
  readonly pieces: readonly LetterPiece[];
}

/** A stretch of a text that one font file writes. */
export interface LetterPiece {
  /** Where the file is. */
  readonly font: string;
  readonly text: string;
  /** Where it begins, from the beginning of the text. */
  readonly x: number;
}

/** Draws a text as a shape, so that it looks the same where its font is not at hand. */
export type Letters = (mark: Pick<TextMark, 'text' | 'face' | 'size'>) => LetterShape;

import type { LegendPart, NodeShape } from '@pebble/contract';
import { textWidth, type Face } from '../style/textWidth';

/** Curves that share one pen. Each is six numbers: start, control point, end. */
export interface CurveBatch {
  readonly stroke: string;
  readonly alpha: number;
  readonly width: number;
  readonly points: Float32Array;
}

/** Filled triangles that share one colour. Each is six numbers: three corners. */
export interface TriangleBatch {
  readonly fill: string;
  readonly alpha: number;
  readonly points: Float32Array;
}

/** Straight lines that share one pen: start and end, four numbers each. */
export interface LineBatch {
  readonly stroke: string;
  readonly alpha: number;
  readonly width: number;
  readonly points: Float32Array;
}

/**
 * A disc with a smaller radius in pixels is painted as a square of the same area, which looks the same and takes a third of the time.
 */
export const SMALLEST_ROUND = 1.2;
/** Half the side of the square that has the area of a disc with radius 1. */
export const SQUARE_HALF = Math.sqrt(Math.PI) / 2;

/** Discs, or other shapes of the same area, that share one colour: x, y, radius of the disc for each. */
export interface DiscBatch {
  readonly shape: NodeShape;
  readonly fill: string;
  readonly alpha: number;
  readonly rim: string;
  readonly rimWidth: number;
  readonly discs: Float32Array;
}

/** A disc made of slices; angles in radians, clockwise from the right. */
export interface Pie {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly slices: readonly { readonly fill: string; readonly from: number; readonly until: number }[];
}

/** A picture that fills a disc, or another shape of the same area. */
export interface NodePictureMark {
  /** Its data address. */
  readonly image: string;
  readonly x: number;
  readonly y: number;
  /** Of the disc. */
  readonly radius: number;
  readonly shape: NodeShape;
}

export interface Ring {
  readonly x: number;
  readonly y: number;
  readonly radius: number;
  readonly stroke: string;
  readonly width: number;
}

/** A line of text; x is its start, middle or end by `anchor`, y its base line. */
export interface TextMark {
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly face: Face;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly fill: string;
  /** Colour of the soft edge that keeps a name readable over ties; null for none. */
  readonly halo: string | null;
  /** Colour of a box behind it; null for none. */
  readonly box?: string | null;
  readonly alpha: number;
}

/** How strongly the box behind a text covers what is beneath. */
export const BOX_ALPHA = 0.82;

/** The box behind a line of text, in pixels. */
export function boxBehind({ text, x, y, size, face, anchor }: TextMark): {
  left: number;
  top: number;
  right: number;
  bottom: number;
} {
  const width = textWidth(text, size, face);
  const left = anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2;
  return { left: left - 3, top: y - 0.86 * size, right: left + width + 3, bottom: y + 0.28 * size };
}

/** How strongly the line of a region is drawn. */
export const REGION_LINE = 0.45;

/**
 * A soft outline round some nodes: closed lines that bend at each of their points, and touch the middles between them. What lies within an
 * even number of lines is outside.
 */
export interface Region {
  readonly fill: string;
  readonly alpha: number;
  readonly stroke: string;
  /** Of each line x, y of its points. */
  readonly lines: readonly Float32Array[];
}

/** The middle between a point of a closed line and the next one. */
export function middleOf(points: Float32Array, i: number): [number, number] {
  const a = 2 * i;
  const b = (a + 2) % points.length;
  return [(points[a] + points[b]) / 2, (points[a + 1] + points[b + 1]) / 2];
}

/** Something that can be taken hold of and moved: a name or a note, with the box that it fills. */
export interface Grip {
  readonly what: 'name' | 'note';
  /** The node whose name it is, or the place of the note among the notes. */
  readonly of: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** A picture, ready to be painted in this order: regions, lines, curves, triangles, discs, pies, pictures, rings, leaders, texts, legend. In pixels, y down. */
export interface Scene {
  readonly width: number;
  readonly height: number;
  readonly ground: string;
  readonly regions: readonly Region[];
  readonly lines: readonly LineBatch[];
  readonly curves: readonly CurveBatch[];
  readonly triangles: readonly TriangleBatch[];
  readonly discs: readonly DiscBatch[];
  readonly pies: readonly Pie[];
  readonly pictures: readonly NodePictureMark[];
  readonly rings: readonly Ring[];
  /** Lines that lead from names and notes to what they speak of. */
  readonly leaders: readonly LineBatch[];
  readonly texts: readonly TextMark[];
  readonly grips: readonly Grip[];
  /** Names for which there was no room. */
  readonly namesLeft?: number;
  readonly legend: LegendMarks;
  /** Pictures beside each other on a page, below all else; figures have them, and the screen does not. */
  readonly panels?: readonly ScenePanel[];
}

/** A picture on a page: cut where it ends. */
export interface ScenePanel {
  readonly x: number;
  readonly y: number;
  readonly scene: Scene;
  /** All of it that lies below the names as a picture, by its address, where its ties are too many to be lines each. */
  readonly under: string | null;
}

/** All lines of text of a scene, those of its panels and of legends among them. */
export function textsOfScene({ texts, legend, panels }: Scene): readonly TextMark[] {
  return [...(panels ?? []).flatMap(({ scene }) => textsOfScene(scene)), ...texts, ...legend.texts];
}

/** A line of the legend that can be pressed: where it stands and what it means. */
export interface LegendSpot {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** The part whose heading it is; null for a group. */
  readonly part: LegendPart | null;
  /** The community that is read there; null for a heading, and for other groups. */
  readonly group: number | null;
  /** Of a group the name under which words of one's own for it are kept; null for a heading. */
  readonly key: string | null;
  readonly label: string;
}

export interface LegendMarks {
  readonly regions: readonly Region[];
  readonly lines: readonly LineBatch[];
  readonly discs: readonly DiscBatch[];
  readonly rings: readonly Ring[];
  readonly texts: readonly TextMark[];
  readonly spots: readonly LegendSpot[];
}

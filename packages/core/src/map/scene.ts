import type { NodeShape } from '@pebble/contract';
import type { Face } from './textWidth';

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
  readonly alpha: number;
}

/** How strongly the line of a region is drawn. */
export const REGION_LINE = 0.45;

/** A soft outline round some nodes: a closed line that bends at each of its points, and touches the middles between them. */
export interface Region {
  readonly fill: string;
  readonly alpha: number;
  readonly stroke: string;
  /** x, y of each point. */
  readonly points: Float32Array;
}

/** A picture, ready to be painted in this order: regions, lines, curves, triangles, discs, rings, texts, legend. In pixels, y down. */
export interface Scene {
  readonly width: number;
  readonly height: number;
  readonly ground: string;
  readonly regions: readonly Region[];
  readonly lines: readonly LineBatch[];
  readonly curves: readonly CurveBatch[];
  readonly triangles: readonly TriangleBatch[];
  readonly discs: readonly DiscBatch[];
  readonly rings: readonly Ring[];
  readonly texts: readonly TextMark[];
  readonly legend: LegendMarks;
}

/** A part of the legend that can be pressed: where it stands and what it means. */
export interface LegendSpot {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly group: number;
  readonly label: string;
}

export interface LegendMarks {
  readonly discs: readonly DiscBatch[];
  readonly rings: readonly Ring[];
  readonly texts: readonly TextMark[];
  readonly spots: readonly LegendSpot[];
}

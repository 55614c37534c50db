import type { NodeShape } from '@pebble/contract';
import { FONT_STACK, fontWeight } from '../style/fonts';
import { CORNERS, reachOf } from '../marks/nodes/shapes';
import {
  BOX_ALPHA,
  boxBehind,
  middleOf,
  REGION_LINE,
  SMALLEST_ROUND,
  SQUARE_HALF,
  type CurveBatch,
  type DiscBatch,
  type LineBatch,
  type NodePictureMark,
  type Pie,
  type Region,
  type Ring,
  type Scene,
  type TextMark,
  type TriangleBatch,
} from '../scene/scene';

/** The part of a 2D canvas context that painting needs. */
export type Pen = Pick<
  CanvasRenderingContext2D,
  | 'fillStyle'
  | 'strokeStyle'
  | 'globalAlpha'
  | 'lineWidth'
  | 'lineCap'
  | 'lineJoin'
  | 'font'
  | 'textAlign'
  | 'beginPath'
  | 'moveTo'
  | 'lineTo'
  | 'quadraticCurveTo'
  | 'arc'
  | 'rect'
  | 'closePath'
  | 'fill'
  | 'stroke'
  | 'fillRect'
  | 'fillText'
  | 'drawImage'
  | 'strokeText'
  | 'save'
  | 'restore'
  | 'clip'
>;

/** Pictures by their data address; null for one that is not read yet, which is left out. */
export type Images = (address: string) => CanvasImageSource | null;

/**
 * Paints a scene; the context is scaled to CSS pixels beforehand.
 * @param ties a picture of the lines and curves of all ties, to be painted in their place
 */
export function paintCanvas(
  pen: Pen,
  scene: Scene,
  ties: CanvasImageSource | null = null,
  images: Images = () => null,
): void {
  pen.globalAlpha = 1;
  pen.fillStyle = scene.ground;
  pen.fillRect(0, 0, scene.width, scene.height);
  pen.lineCap = 'butt';
  pen.lineJoin = 'round';
  for (const region of scene.regions) paintRegion(pen, region);
  if (ties) pen.drawImage(ties, 0, 0, scene.width, scene.height);
  else {
    for (const batch of scene.lines) paintLines(pen, batch);
    for (const batch of scene.curves) paintCurves(pen, batch);
  }
  for (const batch of scene.triangles) paintTriangles(pen, batch);
  for (const batch of scene.discs) paintDiscs(pen, batch);
  for (const pie of scene.pies) paintPie(pen, pie);
  for (const picture of scene.pictures) paintPicture(pen, picture, images);
  for (const ring of scene.rings) paintRing(pen, ring);
  for (const batch of scene.leaders) paintLines(pen, batch);
  for (const text of scene.texts) paintText(pen, text);
  for (const region of scene.legend.regions) paintRegion(pen, region);
  for (const batch of scene.legend.lines) paintLines(pen, batch);
  for (const batch of scene.legend.discs) paintDiscs(pen, batch);
  for (const ring of scene.legend.rings) paintRing(pen, ring);
  for (const text of scene.legend.texts) paintText(pen, text);
  pen.globalAlpha = 1;
}

function paintRegion(pen: Pen, { fill, stroke, alpha, lines }: Region): void {
  pen.beginPath();
  for (const points of lines) {
    const count = points.length / 2;
    pen.moveTo(...middleOf(points, count - 1));
    for (let i = 0; i < count; i++)
      pen.quadraticCurveTo(points[2 * i], points[2 * i + 1], ...middleOf(points, i));
    pen.closePath();
  }
  pen.globalAlpha = alpha;
  pen.fillStyle = fill;
  pen.fill('evenodd');
  pen.globalAlpha = REGION_LINE;
  pen.strokeStyle = stroke;
  pen.lineWidth = 1.2;
  pen.stroke();
}

function beginStroke(pen: Pen, { stroke, alpha, width }: Omit<LineBatch, 'points'>): void {
  pen.strokeStyle = stroke;
  pen.globalAlpha = alpha;
  pen.lineWidth = width;
  pen.beginPath();
}

function paintLines(pen: Pen, batch: LineBatch): void {
  const { points } = batch;
  beginStroke(pen, batch);
  for (let i = 0; i < points.length; i += 4) {
    pen.moveTo(points[i], points[i + 1]);
    pen.lineTo(points[i + 2], points[i + 3]);
  }
  pen.stroke();
}

function paintCurves(pen: Pen, batch: CurveBatch): void {
  const { points } = batch;
  beginStroke(pen, batch);
  for (let i = 0; i < points.length; i += 6) {
    pen.moveTo(points[i], points[i + 1]);
    pen.quadraticCurveTo(points[i + 2], points[i + 3], points[i + 4], points[i + 5]);
  }
  pen.stroke();
}

function paintTriangles(pen: Pen, { fill, alpha, points }: TriangleBatch): void {
  pen.fillStyle = fill;
  pen.globalAlpha = alpha;
  pen.beginPath();
  for (let i = 0; i < points.length; i += 6) {
    pen.moveTo(points[i], points[i + 1]);
    pen.lineTo(points[i + 2], points[i + 3]);
    pen.lineTo(points[i + 4], points[i + 5]);
    pen.closePath();
  }
  pen.fill();
}

function paintDiscs(pen: Pen, { shape, fill, alpha, rim, rimWidth, discs }: DiscBatch): void {
  const corners = CORNERS[shape];
  pen.fillStyle = fill;
  pen.globalAlpha = alpha;
  pen.beginPath();
  for (let i = 0; i < discs.length; i += 3) {
    const r = discs[i + 2];
    if (r < SMALLEST_ROUND) {
      const half = r * SQUARE_HALF;
      pen.rect(discs[i] - half, discs[i + 1] - half, 2 * half, 2 * half);
      continue;
    }
    if (corners) {
      corners.forEach(([x, y], c) => {
        if (c === 0) pen.moveTo(discs[i] + x * r, discs[i + 1] + y * r);
        else pen.lineTo(discs[i] + x * r, discs[i + 1] + y * r);
      });
      pen.closePath();
      continue;
    }
    pen.moveTo(discs[i] + r, discs[i + 1]);
    pen.arc(discs[i], discs[i + 1], r, 0, 2 * Math.PI);
  }
  pen.fill();
  if (rimWidth === 0) return;
  pen.strokeStyle = rim;
  pen.lineWidth = rimWidth;
  pen.stroke();
}

function paintPie(pen: Pen, { x, y, radius, slices }: Pie): void {
  pen.globalAlpha = 1;
  for (const { fill, from, until } of slices) {
    pen.fillStyle = fill;
    pen.beginPath();
    // Not every canvas paints a slice that is a whole turn.
    if (slices.length === 1) pen.arc(x, y, radius, 0, 2 * Math.PI);
    else {
      pen.moveTo(x, y);
      pen.arc(x, y, radius, from, until);
    }
    pen.closePath();
    pen.fill();
  }
}

function paintPicture(pen: Pen, { image, x, y, radius, shape }: NodePictureMark, images: Images): void {
  const read = images(image);
  if (!read) return;
  pen.globalAlpha = 1;
  pen.save();
  pen.beginPath();
  traceShape(pen, x, y, radius, shape);
  pen.clip();
  const half = radius * reachOf(shape);
  pen.drawImage(read, x - half, y - half, 2 * half, 2 * half);
  pen.restore();
}

function traceShape(pen: Pen, x: number, y: number, radius: number, shape: NodeShape): void {
  const corners = CORNERS[shape];
  if (!corners) pen.arc(x, y, radius, 0, 2 * Math.PI);
  corners?.forEach(([cx, cy], c) => {
    if (c === 0) pen.moveTo(x + cx * radius, y + cy * radius);
    else pen.lineTo(x + cx * radius, y + cy * radius);
  });
  pen.closePath();
}

function paintRing(pen: Pen, { x, y, radius, stroke, width }: Ring): void {
  pen.globalAlpha = 1;
  pen.strokeStyle = stroke;
  pen.lineWidth = width;
  pen.beginPath();
  pen.arc(x, y, radius, 0, 2 * Math.PI);
  pen.stroke();
}

function paintText(pen: Pen, mark: TextMark): void {
  const { text, x, y, size, face, anchor, fill, halo, box, alpha } = mark;
  pen.font = `${fontWeight(face)} ${size}px ${FONT_STACK[face]}`;
  pen.textAlign = anchor === 'middle' ? 'center' : anchor;
  pen.globalAlpha = alpha;
  if (box) {
    const { left, top, right, bottom } = boxBehind(mark);
    pen.globalAlpha = alpha * BOX_ALPHA;
    pen.fillStyle = box;
    pen.fillRect(left, top, right - left, bottom - top);
    pen.globalAlpha = alpha;
  }
  if (halo) {
    pen.strokeStyle = halo;
    pen.lineWidth = size * 0.28;
    pen.strokeText(text, x, y);
  }
  pen.fillStyle = fill;
  pen.fillText(text, x, y);
}

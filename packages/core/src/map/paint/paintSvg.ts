import { escapeXml } from '../../formats/markup';
import type { Letters } from '../style/letters';
import { FONT_STACK, fontFaceRule, fontWeight } from '../style/fonts';
import {
  BOX_ALPHA,
  boxBehind,
  middleOf,
  REGION_LINE,
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
import { CORNERS, reachOf } from '../marks/nodes/shapes';
import { captionMarks, figureSize, leftOf, type FigureOptions } from './figureParts';

/** The address of an image, as SVG 1.1 wants it. */
const XLINK = 'xmlns:xlink="http://www.w3.org/1999/xlink" xlink:href';
/** The scene as an SVG 1.1 document: the same marks in the same order as on the canvas, and its caption below. */
export function paintSvg(scene: Scene, options: FigureOptions = {}): string {
  const text = (mark: TextMark): string => textMark(mark, options.letters ?? null);
  const size = figureSize(scene, options);
  const height = (size.height * scene.width) / size.width;
  const out: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${n(scene.width)} ${n(height)}">`,
  ];
  const { told, caption } = options;
  if (told ?? caption) out.push(`<title>${escapeXml(told?.short ?? caption ?? '')}</title>`);
  if (told) out.push(`<desc>${escapeXml(told.long)}</desc>`);
  if (options.fonts?.length) out.push(`<style>${options.fonts.map(fontFaceRule).join('')}</style>`);
  if (!options.transparent)
    out.push(`<rect width="${n(scene.width)}" height="${n(height)}" fill="${scene.ground}"/>`);
  out.push(...content(scene, options, 'picture', text));
  out.push(...captionMarks(scene, options).map(text));
  out.push('</svg>');
  return out.join('\n');
}

/** All marks of a scene, cut where it ends, and its legend. @param name of the cut, another one for each scene of a document */
function content(
  scene: Scene,
  { under, ties }: Pick<FigureOptions, 'under' | 'ties'>,
  name: string,
  text: (mark: TextMark) => string,
): string[] {
  const pictures = scene.pictures.map((mark, i) => picture(mark, `${name}-${i}`));
  const out = (scene.panels ?? []).flatMap((panel, i) => [
    `<g transform="translate(${n(panel.x)} ${n(panel.y)})">`,
    ...content(panel.scene, { under: panel.under }, `panel${i}`, text),
    '</g>',
  ]);
  out.push(`<clipPath id="${name}"><rect width="${n(scene.width)}" height="${n(scene.height)}"/></clipPath>`);
  out.push(`<g clip-path="url(#${name})">`);
  if (under) out.push(imageOf(scene, under), ...pictures);
  else {
    out.push(...scene.regions.map(region));
    if (ties) out.push(imageOf(scene, ties));
    else
      out.push(
        '<g fill="none" stroke-linejoin="round">',
        ...scene.lines.map(lines),
        ...scene.curves.map(curves),
        '</g>',
      );
    out.push('<g>', ...scene.triangles.map(triangles), '</g>');
    out.push(
      '<g>',
      ...scene.discs.map(discs),
      '</g>',
      ...scene.pies.map(pie),
      ...pictures,
      ...scene.rings.map(ring),
    );
  }
  out.push(...scene.leaders.map(lines));
  out.push('<g>', ...scene.texts.map(text), '</g>', '</g>');
  out.push(
    '<g>',
    ...scene.legend.regions.map(region),
    ...scene.legend.lines.map(lines),
    ...scene.legend.discs.map(discs),
    ...scene.legend.rings.map(ring),
    ...scene.legend.texts.map(text),
    '</g>',
  );
  return out;
}

/** A picture of the whole scene. */
function imageOf({ width, height }: Scene, address: string): string {
  return `<image width="${n(width)}" height="${n(height)}" preserveAspectRatio="none" ${XLINK}="${escapeXml(address)}"/>`;
}

/** A number with at most two decimals. */
function n(value: number): string {
  return String(Math.round(value * 100) / 100);
}

function region({ fill, stroke, alpha, lines }: Region): string {
  return `<path d="${lines.map(closedLine).join('')}" fill="${fill}" fill-rule="evenodd" fill-opacity="${n(alpha)}" stroke="${stroke}" stroke-opacity="${REGION_LINE}" stroke-width="1.2"/>`;
}

function pie({ x, y, radius, slices }: Pie): string {
  return slices
    .map(({ fill, from, until }) => {
      if (slices.length === 1) return `<circle cx="${n(x)}" cy="${n(y)}" r="${n(radius)}" fill="${fill}"/>`;
      const at = (angle: number): string =>
        `${n(x + radius * Math.cos(angle))} ${n(y + radius * Math.sin(angle))}`;
      const large = until - from > Math.PI ? 1 : 0;
      return `<path d="M${n(x)} ${n(y)}L${at(from)}A${n(radius)} ${n(radius)} 0 ${large} 1 ${at(until)}Z" fill="${fill}"/>`;
    })
    .join('');
}

/** A closed line that bends at its points. */
function closedLine(points: Float32Array): string {
  const count = points.length / 2;
  const middle = (i: number): string => middleOf(points, i).map(n).join(' ');
  let d = `M${middle(count - 1)}`;
  for (let i = 0; i < count; i++) d += `Q${n(points[2 * i])} ${n(points[2 * i + 1])} ${middle(i)}`;
  return `${d}Z`;
}

function lines({ stroke, alpha, width, points }: LineBatch): string {
  let d = '';
  for (let i = 0; i < points.length; i += 4)
    d += `M${n(points[i])} ${n(points[i + 1])}L${n(points[i + 2])} ${n(points[i + 3])}`;
  return `<path d="${d}" stroke="${stroke}" stroke-opacity="${n(alpha)}" stroke-width="${n(width)}"/>`;
}

function curves({ stroke, alpha, width, points }: CurveBatch): string {
  let d = '';
  for (let i = 0; i < points.length; i += 6) {
    d += `M${n(points[i])} ${n(points[i + 1])}Q${n(points[i + 2])} ${n(points[i + 3])} ${n(points[i + 4])} ${n(points[i + 5])}`;
  }
  return `<path d="${d}" stroke="${stroke}" stroke-opacity="${n(alpha)}" stroke-width="${n(width)}"/>`;
}

function triangles({ fill, alpha, points }: TriangleBatch): string {
  let d = '';
  for (let i = 0; i < points.length; i += 6) {
    d += `M${n(points[i])} ${n(points[i + 1])}L${n(points[i + 2])} ${n(points[i + 3])} ${n(points[i + 4])} ${n(points[i + 5])}Z`;
  }
  return `<path d="${d}" fill="${fill}" fill-opacity="${n(alpha)}"/>`;
}

function discs({ shape, fill, alpha, rim, rimWidth, discs: list }: DiscBatch): string {
  const corners = CORNERS[shape];
  const marks: string[] = [];
  for (let i = 0; i < list.length; i += 3) {
    const [x, y, r] = [list[i], list[i + 1], list[i + 2]];
    if (corners) {
      marks.push(`<path d="M${corners.map(([cx, cy]) => `${n(x + cx * r)} ${n(y + cy * r)}`).join('L')}Z"/>`);
      continue;
    }
    marks.push(`<circle cx="${n(x)}" cy="${n(y)}" r="${n(r)}"/>`);
  }
  const edge =
    rimWidth > 0 ? ` stroke="${rim}" stroke-width="${n(rimWidth)}" stroke-opacity="${n(alpha)}"` : '';
  return `<g fill="${fill}" fill-opacity="${n(alpha)}"${edge}>${marks.join('')}</g>`;
}

/** An image that is cut to the shape of its node. */
function picture({ image, x, y, radius, shape }: NodePictureMark, name: string): string {
  const corners = CORNERS[shape];
  const outline = corners
    ? `<path d="M${corners.map(([cx, cy]) => `${n(x + cx * radius)} ${n(y + cy * radius)}`).join('L')}Z"/>`
    : `<circle cx="${n(x)}" cy="${n(y)}" r="${n(radius)}"/>`;
  const half = radius * reachOf(shape);
  const box = `x="${n(x - half)}" y="${n(y - half)}" width="${n(2 * half)}" height="${n(2 * half)}"`;
  return (
    `<clipPath id="${name}">${outline}</clipPath>` +
    `<image ${box} preserveAspectRatio="none" ${XLINK}="${escapeXml(image)}" clip-path="url(#${name})"/>`
  );
}

function ring({ x, y, radius, stroke, width }: Ring): string {
  return `<circle cx="${n(x)}" cy="${n(y)}" r="${n(radius)}" fill="none" stroke="${stroke}" stroke-width="${n(width)}"/>`;
}

function textMark(mark: TextMark, letters: Letters | null): string {
  const { text: content, x, y, size, face, anchor, fill, halo, box, alpha } = mark;
  const edge = halo
    ? ` stroke="${halo}" stroke-width="${n(size * 0.28)}" stroke-linejoin="round" paint-order="stroke"`
    : '';
  const behind = box ? boxBehind(mark) : null;
  const rect = behind
    ? `<rect x="${n(behind.left)}" y="${n(behind.top)}" width="${n(behind.right - behind.left)}" height="${n(behind.bottom - behind.top)}" fill="${box}" fill-opacity="${n(alpha * BOX_ALPHA)}"/>`
    : '';
  if (letters) {
    const { d, width } = letters(mark);
    const left = leftOf(mark, width);
    return `${rect}<path role="img" aria-label="${escapeXml(content)}" transform="translate(${n(left)} ${n(y)})" d="${d}" fill="${fill}" fill-opacity="${n(alpha)}"${edge}/>`;
  }
  return (
    rect +
    `<text x="${n(x)}" y="${n(y)}" font-family='${FONT_STACK[face]}' font-size="${n(size)}" font-weight="${fontWeight(face)}"` +
    ` text-anchor="${anchor}" fill="${fill}" fill-opacity="${n(alpha)}"${edge}>${escapeXml(content)}</text>`
  );
}

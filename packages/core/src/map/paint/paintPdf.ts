import PDFDocument from 'pdfkit';
import { reachOf } from '../marks/nodes/shapes';
import {
  BOX_ALPHA,
  boxBehind,
  REGION_LINE,
  textsOfScene,
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
import type { FigureText } from '../description/figureText';
import type { Letters } from '../style/letters';
import { captionMarks, figureSize, leftOf, type FigureOptions } from './figureParts';
import { bendTo, closedLine, letterPath, lineTo, moveTo, outlineOf } from './pdfPaths';

export interface PdfOptions extends Pick<
  FigureOptions,
  'width' | 'caption' | 'ink' | 'transparent' | 'ties' | 'under'
> {
  /** Pixels to the inch: how large the figure of so many pixels is in print. */
  readonly resolution: number;
  readonly letters: Letters;
  /** Reads a font file by its address. Of those that letters name the files in WOFF are asked for: letters with accents of WOFF2 cannot be embedded. */
  readonly readFont: (address: string) => Promise<Uint8Array>;
  readonly title: string;
  readonly told: FigureText;
  /** Given, not taken from the clock, so that the same figure is the same file. */
  readonly made: Date;
}

/** A PDF of one page (ISO 32000-1): the same marks in the same order as in the SVG, and letters that can be searched, with their fonts. */
export async function paintPdf(scene: Scene, options: PdfOptions): Promise<Uint8Array> {
  const { width, height } = figureSize(scene, options);
  const points = 72 / options.resolution;
  const { told } = options;
  const document = new PDFDocument({
    size: [width * points, height * points],
    margin: 0,
    // None to begin with: there is none that every machine has.
    font: '',
    pdfVersion: '1.7',
    lang: 'en',
    tagged: true,
    displayTitle: true,
    info: {
      Title: options.title,
      Subject: told.short,
      Creator: 'Pebble Thread',
      Producer: 'Pebble Thread',
      CreationDate: options.made,
      ModDate: options.made,
    },
  });
  const bytes = collected(document);
  const fonts = fontsOf(scene, options);
  const files = await Promise.all(fonts.map((font) => options.readFont(font.replace(/woff2$/, 'woff'))));
  fonts.forEach((font, i) => document.registerFont(font, files[i]));
  const figure = document.struct('Figure', { alt: `${told.short} ${told.long}` }, () => {
    document.save().scale((width * points) / scene.width);
    new PdfPainter(document, options).paint(scene, (height * scene.width) / width);
    document.restore();
  });
  document.addStructure(figure);
  document.end();
  return bytes;
}

/** The files whose letters are written. */
function fontsOf(scene: Scene, options: PdfOptions): string[] {
  const marks = [...textsOfScene(scene), ...captionMarks(scene, options)];
  return [...new Set(marks.flatMap((mark) => options.letters(mark).pieces.map(({ font }) => font)))];
}

function collected(document: PDFKit.PDFDocument): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const parts: Uint8Array[] = [];
    document.on('data', (part: Uint8Array) => parts.push(part));
    document.on('error', reject);
    document.on('end', () => {
      const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
      let at = 0;
      for (const part of parts) {
        bytes.set(part, at);
        at += part.length;
      }
      resolve(bytes);
    });
  });
}

/** Draws the marks of a scene on a page of a PDF, in pixels of the scene. */
class PdfPainter {
  constructor(
    private readonly page: PDFKit.PDFDocument,
    private readonly options: PdfOptions,
  ) {}

  /** @param height of the figure, with its caption */
  paint(scene: Scene, height: number): void {
    const { options } = this;
    if (!options.transparent) this.alpha(1).rect(0, 0, scene.width, height).fill(scene.ground);
    this.content(scene, options);
    captionMarks(scene, options).forEach((one) => this.text(one));
  }

  /** All marks of a scene, cut where it ends, and its legend. */
  private content(scene: Scene, { ties, under }: Pick<PdfOptions, 'ties' | 'under'>): void {
    const { page } = this;
    for (const panel of scene.panels ?? []) {
      page.save().translate(panel.x, panel.y);
      this.content(panel.scene, { under: panel.under });
      page.restore();
    }
    page.save().rect(0, 0, scene.width, scene.height).clip();
    if (under) this.whole(scene, under);
    else {
      scene.regions.forEach((one) => this.region(one));
      page.lineJoin('round');
      if (ties) this.whole(scene, ties);
      else {
        scene.lines.forEach((one) => this.lines(one));
        scene.curves.forEach((one) => this.curves(one));
      }
      scene.triangles.forEach((one) => this.triangles(one));
      scene.discs.forEach((one) => this.discs(one));
      scene.pies.forEach((one) => this.pie(one));
    }
    scene.pictures.forEach((one) => this.picture(one));
    if (!under) scene.rings.forEach((one) => this.ring(one));
    scene.leaders.forEach((one) => this.lines(one));
    scene.texts.forEach((one) => this.text(one));
    page.restore();
    const { regions, lines, discs, rings, texts } = scene.legend;
    regions.forEach((one) => this.region(one));
    lines.forEach((one) => this.lines(one));
    discs.forEach((one) => this.discs(one));
    rings.forEach((one) => this.ring(one));
    texts.forEach((one) => this.text(one));
  }

  private alpha(fill: number, stroke = fill): PDFKit.PDFDocument {
    return this.page.fillOpacity(fill).strokeOpacity(stroke);
  }

  /** A picture of the whole scene, by its data address. */
  private whole({ width, height }: Scene, address: string): void {
    this.alpha(1).image(address, 0, 0, { width, height });
  }

  private region({ fill, stroke, alpha, lines }: Region): void {
    this.alpha(alpha, REGION_LINE).lineWidth(1.2);
    for (const points of lines) this.page.addContent(closedLine(points));
    this.page.fillAndStroke(fill, stroke, 'even-odd');
  }

  private lines({ stroke, alpha, width, points }: LineBatch): void {
    this.alpha(alpha).lineWidth(width);
    let path = '';
    for (let i = 0; i < points.length; i += 4)
      path += moveTo(points[i], points[i + 1]) + lineTo(points[i + 2], points[i + 3]);
    this.page.addContent(path);
    this.page.stroke(stroke);
  }

  private curves({ stroke, alpha, width, points }: CurveBatch): void {
    this.alpha(alpha).lineWidth(width);
    let path = '';
    for (let i = 0; i < points.length; i += 6) {
      const [ax, ay, cx, cy, bx, by] = points.subarray(i, i + 6);
      path += moveTo(ax, ay) + bendTo(ax, ay, cx, cy, bx, by);
    }
    this.page.addContent(path);
    this.page.stroke(stroke);
  }

  private triangles({ fill, alpha, points }: TriangleBatch): void {
    this.alpha(alpha);
    let path = '';
    for (let i = 0; i < points.length; i += 6)
      path +=
        moveTo(points[i], points[i + 1]) +
        lineTo(points[i + 2], points[i + 3]) +
        lineTo(points[i + 4], points[i + 5]) +
        'h\n';
    this.page.addContent(path);
    this.page.fill(fill);
  }

  private discs({ shape, fill, alpha, rim, rimWidth, discs }: DiscBatch): void {
    this.alpha(alpha).lineWidth(rimWidth);
    this.page.fillColor(fill, alpha);
    if (rimWidth > 0) this.page.strokeColor(rim, alpha);
    // Each by itself: where they lie over each other the upper one has its rim.
    const painted = rimWidth > 0 ? 'B\n' : 'f\n';
    let all = '';
    for (let i = 0; i < discs.length; i += 3)
      all += outlineOf(shape, discs[i], discs[i + 1], discs[i + 2]) + painted;
    this.page.addContent(all);
  }

  private pie({ x, y, radius, slices }: Pie): void {
    this.alpha(1);
    for (const { fill, from, until } of slices) {
      if (slices.length === 1) this.page.circle(x, y, radius);
      else {
        const at = (angle: number): string =>
          `${x + radius * Math.cos(angle)} ${y + radius * Math.sin(angle)}`;
        const large = until - from > Math.PI ? 1 : 0;
        this.page.path(`M${x} ${y}L${at(from)}A${radius} ${radius} 0 ${large} 1 ${at(until)}Z`);
      }
      this.page.fill(fill);
    }
  }

  /** An image that is cut to the shape of its node. */
  private picture({ image, x, y, radius, shape }: NodePictureMark): void {
    const half = radius * reachOf(shape);
    this.page.save();
    this.page.addContent(outlineOf(shape, x, y, radius));
    this.page.clip();
    this.alpha(1).image(image, x - half, y - half, { width: 2 * half, height: 2 * half });
    this.page.restore();
  }

  private ring({ x, y, radius, stroke, width }: Ring): void {
    this.alpha(1).lineWidth(width).circle(x, y, radius).stroke(stroke);
  }

  /** The soft edge is drawn as shapes, so that a search finds the letters once. */
  private text(mark: TextMark): void {
    const { y, size, fill, halo, box, alpha } = mark;
    const { d, width, pieces } = this.options.letters(mark);
    const left = leftOf(mark, width);
    const behind = box ? boxBehind(mark) : null;
    if (box && behind)
      this.alpha(alpha * BOX_ALPHA)
        .rect(behind.left, behind.top, behind.right - behind.left, behind.bottom - behind.top)
        .fill(box);
    if (halo && d !== '') {
      this.page.save().translate(left, y);
      this.page
        .strokeOpacity(1)
        .lineWidth(size * 0.28)
        .lineJoin('round');
      this.page.addContent(letterPath(d));
      this.page.stroke(halo).restore();
    }
    this.alpha(alpha).fillColor(fill, alpha).fontSize(size);
    for (const piece of pieces)
      this.page
        .font(piece.font)
        .text(piece.text, left + piece.x, y, { lineBreak: false, baseline: 'alphabetic' });
  }
}

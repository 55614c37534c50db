import {
  AlignmentType,
  BorderStyle,
  Document,
  HeadingLevel,
  ImageRun,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import { xmlText } from '../formats/markup';
import { bylineOf, Numbering, type Report, type ReportBlock, type ReportPicture } from './report';

/** Room between the margins of an A4 page, in pixels of 96 to the inch. */
const ROOM = { width: 604, height: 820 };
const LINE = { style: BorderStyle.SINGLE, size: 4, color: 'C9C3B4' };
const NONE = { style: BorderStyle.NONE, size: 0, color: 'FFFFFF' };

/** A report as a document of Office Open XML (ISO/IEC 29500), with headings, captions and texts for those who cannot see its pictures. */
export async function reportDocx(report: Report, pictures: readonly ReportPicture[]): Promise<Uint8Array> {
  const numbering = new Numbering();
  const drawn = pictures.values();
  const made = new Date(report.made);
  const document = new Document({
    title: report.title,
    creator: report.author || 'Pebble Thread',
    lastModifiedBy: report.author || 'Pebble Thread',
    description: bylineOf(report),
    features: { updateFields: false },
    styles: {
      default: {
        document: { run: { font: 'Georgia', size: 21, language: { value: 'en-GB' } } },
        title: { run: { size: 40, bold: true }, paragraph: { spacing: { after: 80 } } },
        heading2: { run: { size: 28, bold: true }, paragraph: { spacing: { before: 400, after: 120 } } },
        heading3: { run: { size: 23, bold: true }, paragraph: { spacing: { before: 280, after: 80 } } },
      },
    },
    sections: [
      {
        properties: { page: { size: { width: '210mm', height: '297mm' }, margin: MARGIN } },
        children: [
          new Paragraph({ heading: HeadingLevel.TITLE, children: runs(report.title) }),
          new Paragraph({
            spacing: { after: 300 },
            children: runs(bylineOf({ ...report, made: made.toISOString() })),
          }),
          ...report.blocks.flatMap((block) => parts(block, numbering, () => drawn.next().value)),
        ],
      },
    ],
  });
  return new Uint8Array(await Packer.toArrayBuffer(document));
}

const MARGIN = { top: '25mm', bottom: '25mm', left: '25mm', right: '25mm' } as const;

function parts(
  block: ReportBlock,
  numbering: Numbering,
  next: () => ReportPicture | undefined,
): (Paragraph | Table)[] {
  switch (block.what) {
    case 'heading': {
      const heading = block.level === 2 ? HeadingLevel.HEADING_2 : HeadingLevel.HEADING_3;
      return [new Paragraph({ heading, keepNext: true, children: runs(block.text) })];
    }
    case 'text':
      return [new Paragraph({ spacing: { after: 140 }, children: runs(block.text) })];
    case 'list':
      return block.items.map((item) => new Paragraph({ bullet: { level: 0 }, children: runs(item) }));
    case 'figure': {
      const { title, caption, told } = block.figure;
      const picture = next();
      return [
        ...(picture ? [new Paragraph({ keepNext: true, children: [image(picture, title, told)] })] : []),
        new Paragraph({
          style: 'Caption',
          spacing: { after: 240 },
          children: [
            new TextRun({ text: `${xmlText(numbering.figure(title))}. `, bold: true }),
            ...runs(caption),
          ],
        }),
      ];
    }
    case 'table':
      return [
        new Paragraph({
          style: 'Caption',
          keepNext: true,
          spacing: { before: 200, after: 80 },
          children: runs(numbering.table(block.title)),
        }),
        table(block),
        new Paragraph({ children: [] }),
      ];
  }
}

function image(
  { png, width, height }: ReportPicture,
  title: string,
  told: { readonly short: string; readonly long: string },
): ImageRun {
  const ratio = Math.min(ROOM.width / width, ROOM.height / height);
  const name = xmlText(title);
  return new ImageRun({
    type: 'png',
    data: png,
    transformation: { width: Math.round(width * ratio), height: Math.round(height * ratio) },
    altText: { name, title: xmlText(told.short), description: xmlText(`${told.short} ${told.long}`) },
  });
}

function table({ columns, rows }: Extract<ReportBlock, { what: 'table' }>): Table {
  const row = (cells: readonly string[], isHead: boolean): TableRow =>
    new TableRow({
      // Some readers take the mark for a yes, whatever its value is.
      ...(isHead ? { tableHeader: true } : {}),
      cantSplit: true,
      children: cells.map(
        (cell, i) =>
          new TableCell({
            borders: { top: NONE, left: NONE, right: NONE, bottom: LINE },
            margins: { top: 40, bottom: 40, right: 120 },
            children: [
              new Paragraph({
                alignment: columns[i].isNumber ? AlignmentType.RIGHT : AlignmentType.LEFT,
                children: [new TextRun({ text: xmlText(cell), bold: isHead, size: 18 })],
              }),
            ],
          }),
      ),
    });
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [
      row(
        columns.map(({ title }) => title),
        true,
      ),
      ...rows.map((cells) => row(cells, false)),
    ],
  });
}

function runs(text: string): TextRun[] {
  return [new TextRun({ text: xmlText(text) })];
}

import { escapeXml } from '../formats/markup';
import { bylineOf, Numbering, type Report, type ReportBlock, type ReportPicture } from './report';

/** Prints to pages: a figure, a table and a heading with what follows it are not torn apart. */
export const REPORT_STYLE = `
body { font: 16px/1.55 'Newsreader', Georgia, 'Times New Roman', serif; color: #1e2a32; background: #fbfaf6; max-width: 46rem; margin: 3rem auto; padding: 0 1.2rem; }
h1 { font-size: 2rem; line-height: 1.2; margin: 0 0 .3rem; }
h2 { font-size: 1.35rem; margin: 2.6rem 0 .6rem; border-top: 1px solid #ddd8cb; padding-top: 1rem; }
h3 { font-size: 1.05rem; margin: 1.6rem 0 .3rem; }
p, li { overflow-wrap: anywhere; }
.byline { color: #55626b; margin: 0 0 2rem; }
figure { margin: 1.2rem 0; }
figure img { width: 100%; height: auto; }
figcaption, caption { text-align: start; font-size: .92rem; color: #3b4851; padding: .3rem 0; }
.scroll { overflow-x: auto; }
table { border-collapse: collapse; width: 100%; font-size: .88rem; margin: 1rem 0; }
th, td { text-align: start; vertical-align: top; padding: .25rem .7rem .25rem 0; border-bottom: 1px solid #ddd8cb; overflow-wrap: anywhere; }
th.n, td.n { text-align: end; font-variant-numeric: tabular-nums; white-space: nowrap; }
ul { padding-inline-start: 1.2rem; }
@page { size: A4; margin: 22mm 20mm; }
@media print {
  body { margin: 0; padding: 0; max-width: none; background: none; font-size: 10.5pt; }
  h2, h3 { break-after: avoid; }
  figure, tr { break-inside: avoid; }
  thead { display: table-header-group; }
  .scroll { overflow: visible; }
}
@media (prefers-color-scheme: dark) and (not print) {
  body { color: #e6e2d8; background: #161d22; }
  h2, th, td { border-color: #3a454d; }
  .byline, figcaption, caption { color: #b6bec4; }
  figure img { border-radius: 4px; }
}
`;

/** A report as the body of a page. @param addresses of its figures */
export function reportBody(report: Report, addresses: readonly string[]): string {
  const numbering = new Numbering();
  const [figures] = [addresses.values()];
  const parts = report.blocks.map((block) => part(block, numbering, () => figures.next().value ?? ''));
  return [
    '<main>',
    `<h1 dir="auto">${escapeXml(report.title)}</h1>`,
    `<p class="byline">${escapeXml(bylineOf(report))}</p>`,
    ...parts,
    '</main>',
  ].join('\n');
}

function part(block: ReportBlock, numbering: Numbering, next: () => string): string {
  switch (block.what) {
    case 'heading':
      return `<h${block.level} dir="auto">${escapeXml(block.text)}</h${block.level}>`;
    case 'text':
      return `<p dir="auto">${escapeXml(block.text)}</p>`;
    case 'list':
      return `<ul>\n${block.items.map((item) => `<li dir="auto">${escapeXml(item)}</li>`).join('\n')}\n</ul>`;
    case 'figure': {
      const { title, caption, told } = block.figure;
      const words = `<strong>${escapeXml(numbering.figure(title))}.</strong> ${escapeXml(caption)}`;
      return `<figure>\n<img src="${next()}" alt="${escapeXml(`${told.short} ${told.long}`)}">\n<figcaption dir="auto">${words}</figcaption>\n</figure>`;
    }
    case 'table': {
      const kind = block.columns.map(({ isNumber }) => (isNumber ? ' class="n"' : ''));
      const head = block.columns
        .map(({ title }, i) => `<th scope="col"${kind[i]}>${escapeXml(title)}</th>`)
        .join('');
      const rows = block.rows.map(
        (row) =>
          `<tr>${row.map((cell, i) => `<td dir="auto"${kind[i]}>${escapeXml(cell)}</td>`).join('')}</tr>`,
      );
      return `<div class="scroll" tabindex="0" role="region" aria-label="${escapeXml(block.title)}">\n<table>\n<caption>${escapeXml(numbering.table(block.title))}</caption>\n<thead><tr>${head}</tr></thead>\n<tbody>\n${rows.join('\n')}\n</tbody>\n</table>\n</div>`;
    }
  }
}

/** A picture as the address of itself. */
export function svgAddress({ svg }: Pick<ReportPicture, 'svg'>): string {
  return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
}

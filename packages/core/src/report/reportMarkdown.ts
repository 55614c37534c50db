import { plainMarkdown } from '../formats/markup';
import { bylineOf, Numbering, type Report, type ReportBlock } from './report';

/** A report as Markdown (CommonMark, with the tables of GitHub's extension). @param addresses of its figures */
export function reportMarkdown(report: Report, addresses: readonly string[]): string {
  const numbering = new Numbering();
  const figures = addresses.values();
  const parts = report.blocks.map((block) => part(block, numbering, () => figures.next().value ?? ''));
  return [`# ${plainMarkdown(report.title)}`, plainMarkdown(bylineOf(report)), ...parts].join('\n\n') + '\n';
}

function part(block: ReportBlock, numbering: Numbering, next: () => string): string {
  switch (block.what) {
    case 'heading':
      return `${'#'.repeat(block.level)} ${plainMarkdown(block.text)}`;
    case 'text':
      return paragraph(block.text);
    case 'list':
      return block.items.map((item) => `- ${paragraph(item)}`).join('\n');
    case 'figure': {
      const { title, caption, told } = block.figure;
      return [
        `![${plainMarkdown(`${told.short} ${told.long}`)}](${next()})`,
        `**${plainMarkdown(numbering.figure(title))}.** ${plainMarkdown(caption)}`,
      ].join('\n\n');
    }
    case 'table': {
      const line = (cells: readonly string[]): string => `| ${cells.map(plainMarkdown).join(' | ')} |`;
      return [
        `${plainMarkdown(numbering.table(block.title))}\n`,
        line(block.columns.map(({ title }) => title)),
        `| ${block.columns.map(({ isNumber }) => (isNumber ? '---:' : '---')).join(' | ')} |`,
        ...block.rows.map(line),
      ].join('\n');
    }
  }
}

/** What would begin a list, were it the beginning of a line, begins none. */
function paragraph(text: string): string {
  return plainMarkdown(text).replace(/^(\s*)([-+=]|\d+[.)])/, (_, space: string, mark: string) =>
    /^\d/.test(mark) ? `${space}${mark.slice(0, -1)}\\${mark.slice(-1)}` : `${space}\\${mark}`,
  );
}

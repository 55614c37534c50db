import type { Methods } from '@pebble/contract';
import { referenceLines } from './references';

/** How something was made, in paragraphs with the works that they cite, as Markdown. */
export function methodsMarkdown(title: string, { paragraphs, references }: Methods): string {
  const list = referenceLines(references)
    .map((line) => `- ${line}`)
    .join('\n');
  const told = [
    `# How “${title}” was made`,
    ...paragraphs.map((sentences) => sentences.join(' ')),
    ...(references.length > 0 ? ['## References', list] : []),
  ];
  return `${told.join('\n\n')}\n`;
}

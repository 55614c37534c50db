import { decodeHTML } from 'entities';

const NOT_TEXT = /<(script|style|head|title|template)\b[^>]*>[\s\S]*?<\/\1\s*>|<!--[\s\S]*?-->/gi;
const LINE_END = /<(?:br|\/p|\/div|\/li|\/h[1-6]|\/tr|\/blockquote)\b[^>]*>/gi;
const TAG = /<\/?[a-z!?][^>]*>/gi;

/** The text of a piece of HTML: tags are left out, the ends of paragraphs become line ends, entities become characters. */
export function htmlToText(html: string): string {
  if (!/[<&]/.test(html)) return html;
  const bare = html.replace(NOT_TEXT, '').replace(/\s+/g, ' ').replace(LINE_END, '\n').replace(TAG, '');
  return decodeHTML(bare)
    .replace(/\u00a0/g, ' ')
    .replace(/[ \t]*\n[ \t]*/g, '\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim();
}

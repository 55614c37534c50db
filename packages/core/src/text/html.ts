import { Tokenizer } from 'htmlparser2';

/** Elements whose content is not shown. */
const HIDDEN = new Set(['script', 'style', 'head', 'title', 'template']);
/** Elements at whose end a line ends. */
const LINES = new Set(['p', 'div', 'li', 'h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'tr', 'blockquote']);

/**
 * The text of a piece of HTML: tags are left out, the ends of paragraphs become line ends, entities become characters. It is cut by the
 * tokenizer of htmlparser2, in time that grows with the length whatever stands there.
 */
export function htmlToText(html: string): string {
  if (!/[<&]/.test(html)) return html;
  const parts: string[] = [];
  const hidden = new Map<string, number>();
  const nothing = (): void => undefined;
  const take = (text: string): void => void (hidden.size === 0 && parts.push(text));
  const nameAt = (start: number, end: number): string => html.slice(start, end).toLowerCase();
  const tokenizer = new Tokenizer(
    { xmlMode: false, decodeEntities: true },
    {
      ontext: (start, end) => take(html.slice(start, end).replace(/\s+/g, ' ')),
      ontextentity: (code) => take(String.fromCodePoint(code)),
      onopentagname: (start, end) => {
        const name = nameAt(start, end);
        if (HIDDEN.has(name)) hidden.set(name, (hidden.get(name) ?? 0) + 1);
        // What is shown begins, also where the head has no end.
        else if (name === 'body') hidden.clear();
        else if (name === 'br') take('\n');
      },
      onclosetag: (start, end) => {
        const name = nameAt(start, end);
        const open = hidden.get(name) ?? 0;
        if (open > 1) hidden.set(name, open - 1);
        else hidden.delete(name);
        if (LINES.has(name)) take('\n');
      },
      onattribdata: nothing,
      onattribentity: nothing,
      onattribend: nothing,
      onattribname: nothing,
      oncdata: nothing,
      oncomment: nothing,
      ondeclaration: nothing,
      onend: nothing,
      onopentagend: nothing,
      onprocessinginstruction: nothing,
      onselfclosingtag: nothing,
    },
  );
  tokenizer.write(html);
  tokenizer.end();
  return linesOf(parts.join('').replace(/\u00a0/g, ' '));
}

/** Without blanks round line ends, and with one empty line in a row at most. */
function linesOf(text: string): string {
  const lines = text.split('\n').map((line) => line.trim());
  return lines
    .filter((line, i) => line !== '' || lines[i - 1] !== '')
    .join('\n')
    .trim();
}

import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

interface Token {
  readonly text: string;
  readonly quoted: boolean;
  readonly row: number;
}

const TOKEN =
  /(\n)|[ \t\r\f]+|\/\/[^\n]*|\/\*[\s\S]*?\*\/|"([^"\\]*(?:\\[\s\S][^"\\]*)*)"|(->|--|[{}[\]=;,:])|(-?(?:\.\d+|\d+(?:\.\d*)?)|[\p{L}_][\p{L}\p{N}_]*)|(<)|#[^\n]*/uy;

/** Subgraphs within subgraphs at most. */
const DEEPEST = 100;

/**
 * Reads the plain subset of the DOT language: one graph or digraph with nodes, chains of ties and attribute lists. Subgraphs are read
 * for their nodes and ties; a tie to or from a whole subgraph, and names written in HTML, are refused.
 */
export function readDot(text: string): FoundNetwork {
  return new DotReader(tokens(text)).read();
}

class DotReader {
  private at = 0;
  private operator = '->';
  private readonly builder = new NetworkBuilder(true);

  constructor(private readonly list: readonly Token[]) {}

  read(): FoundNetwork {
    if (this.isWord('strict')) this.at++;
    const kind = this.take().text.toLowerCase();
    if (kind !== 'graph' && kind !== 'digraph')
      throw new BrokenNetwork('The file begins with neither graph nor digraph.', 1);
    this.operator = kind === 'digraph' ? '->' : '--';
    this.builder.setDirected(kind === 'digraph');
    if (!this.is('{')) this.take();
    this.statements();
    if (this.at < this.list.length) this.builder.note('Only the first graph of the file was taken.');
    return this.builder.finish();
  }

  private statements(depth = 0): void {
    if (depth > DEEPEST)
      throw new BrokenNetwork(`Subgraphs are nested more than ${DEEPEST} deep.`, this.peek().row);
    this.expect('{');
    while (!this.is('}')) {
      if (this.is(';') || this.is(',')) this.at++;
      else if (this.is('{')) this.statements(depth + 1);
      else if (this.isWord('subgraph')) {
        this.at++;
        if (!this.is('{')) this.take();
        this.statements(depth + 1);
      } else this.statement();
      if (this.is('->') || this.is('--'))
        throw new BrokenNetwork('A tie to or from a whole subgraph is not read.', this.peek().row);
    }
    this.expect('}');
  }

  private statement(): void {
    const first = this.take();
    if (!first.quoted && /^(?:node|edge|graph)$/i.test(first.text) && this.is('[')) {
      this.attributes();
      return;
    }
    if (this.is('=')) {
      this.at += 2;
      return;
    }
    const chain = [this.nodeName(first)];
    while (this.is('->') || this.is('--')) {
      const { text, row } = this.take();
      if (text !== this.operator)
        throw new BrokenNetwork(
          `“${text}” stands in a ${this.operator === '->' ? 'digraph' : 'graph'}.`,
          row,
        );
      if (this.is('{') || this.isWord('subgraph'))
        throw new BrokenNetwork('A tie to or from a whole subgraph is not read.', row);
      chain.push(this.nodeName(this.take()));
    }
    const attributes = this.is('[') ? this.attributes() : {};
    if (chain.length === 1) {
      const { label = '', ...rest } = attributes;
      this.builder.describeNode(chain[0], label === '\\N' ? '' : label, rest);
      return;
    }
    const { weight = '', ...rest } = attributes;
    for (let i = 1; i < chain.length; i++) this.builder.edge(chain[i - 1], chain[i], weight, rest, first.row);
  }

  /** A node's name; a port behind it is left out. */
  private nodeName({ text, quoted, row }: Token): string {
    if (!quoted && /^[{}[\]=;,:]$/.test(text))
      throw new BrokenNetwork(`“${text}” stands where a node is expected.`, row);
    while (this.is(':')) this.at += 2;
    return text;
  }

  private attributes(): Record<string, string> {
    const found = new Map<string, string>();
    while (this.is('[')) {
      this.at++;
      while (!this.is(']')) {
        if (this.is(';') || this.is(',')) {
          this.at++;
          continue;
        }
        const name = this.take().text;
        if (this.is('=')) {
          this.at++;
          found.set(name, this.take().text);
        } else found.set(name, 'true');
      }
      this.at++;
    }
    return Object.fromEntries(found);
  }

  private peek(): Token {
    const token = this.list[this.at];
    if (!token)
      throw new BrokenNetwork(
        'The file ends in the middle; a closing bracket is missing.',
        this.list.at(-1)?.row ?? 1,
      );
    return token;
  }

  private take(): Token {
    const token = this.peek();
    this.at++;
    return token;
  }

  private is(mark: string): boolean {
    const token = this.peekOrNull();
    return token !== null && !token.quoted && token.text === mark;
  }

  private peekOrNull(): Token | null {
    if (this.at >= this.list.length && this.at > 0 && this.list[this.at - 1].text !== '}') this.peek();
    return this.list[this.at] ?? null;
  }

  private isWord(word: string): boolean {
    const token = this.list[this.at];
    return token !== undefined && !token.quoted && token.text.toLowerCase() === word;
  }

  private expect(mark: string): void {
    const { text, row } = this.take();
    if (text !== mark)
      throw new BrokenNetwork(`“${mark}” was expected, “${text.slice(0, 30)}” stands there.`, row);
  }
}

function tokens(text: string): Token[] {
  const found: Token[] = [];
  let row = 1;
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.length) {
    const from = TOKEN.lastIndex;
    const match = TOKEN.exec(text);
    if (!match) throw new BrokenNetwork(`This is not understood: “${text.slice(from, from + 20)}”.`, row);
    const [whole, , quoted, mark, word, html] = match;
    if (html) throw new BrokenNetwork('Names written in HTML are not read.', row);
    if (quoted !== undefined)
      found.push({ text: quoted.replace(/\\\n/g, '').replace(/\\(["\\])/g, '$1'), quoted: true, row });
    else if (mark ?? word) found.push({ text: mark ?? word, quoted: false, row });
    row += whole.split('\n').length - 1;
  }
  return found;
}

import { letterOf } from './platePage';

/** A caption of a map is made of sentences. */
const SENTENCES = /(?<=\.) (?=[A-Z\d])/;

/**
 * What one caption says of several maps: which letter is which, and what each shows; what goes for all of them stands once, at the end, and
 * maps of which the same is said stand together.
 */
export function pageCaption(parts: readonly { readonly title: string; readonly caption: string }[]): string {
  if (parts.length === 0) return '';
  const said = parts.map(({ title, caption }, i) => ({
    name: `${letterOf(i)}, ${title}`,
    sentences: caption.split(SENTENCES),
  }));
  if (said.length === 1) return `${said[0].name}: ${parts[0].caption}`;
  const [first] = said;
  const common = first.sentences.filter((one) => said.every(({ sentences }) => sentences.includes(one)));
  const together: { readonly names: string[]; readonly own: string }[] = [];
  for (const { name, sentences } of said) {
    const own = sentences.filter((one) => !common.includes(one)).join(' ');
    const last = together.at(-1);
    if (last?.own === own) last.names.push(name);
    else together.push({ names: [name], own });
  }
  const heads = together.map(({ names, own }) => `${names.join('; ')}${own === '' ? '.' : `: ${own}`}`);
  if (common.length > 0) heads.push(`${said.length === 2 ? 'Both' : 'All'}: ${common.join(' ')}`);
  return heads.join(' ');
}

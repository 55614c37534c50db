import { letterOf } from './platePage';

/** What one caption says of several maps: which letter is which, and what each shows; what goes for all of them stands once. */
export function pageCaption(parts: readonly { readonly title: string; readonly caption: string }[]): string {
  const said = parts.map(({ title, caption }, i) => ({ letter: letterOf(i), title, caption }));
  const isOne = said.every(({ caption }) => caption === said[0].caption);
  const named = (one: (typeof said)[number]): string => `${one.letter}, ${one.title}`;
  if (isOne && said.length > 1)
    return `${said.map(named).join('; ')}. ${said.length === 2 ? 'Both' : 'All'}: ${said[0].caption}`;
  return said.map((one) => `${named(one)}: ${one.caption}`).join(' ');
}

import { closeSync, openSync, writeSync } from 'node:fs';

/** What was written: to be compared with what the application counts. */
interface Material {
  readonly posts: number;
  readonly accounts: number;
  readonly bytes: number;
}

const WORDS: Readonly<Record<'en' | 'fr' | 'es', readonly string[]>> = {
  en: 'the lamps on the wall are dimmer tonight and nobody asked us walking home past the quay moths came back ferry is late council votes again light for whom'.split(
    ' ',
  ),
  fr: 'les lampes du quai sont plus faibles ce soir et personne ne nous a demandé le bac est en retard le conseil vote encore la lumière pour qui'.split(
    ' ',
  ),
  es: 'las farolas del muelle alumbran menos esta noche y nadie nos preguntó el barco llega tarde el consejo vota otra vez la luz para quién'.split(
    ' ',
  ),
};

/** A small generator of numbers from 0 to 1 (mulberry32), the same everywhere. */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Writes made-up posts as CSV: about a third as many accounts as posts, names and hashtags by a power law, answers, mentions, reposts, three
 * languages, three months.
 */
export function writePosts(path: string, posts: number, seed = 7): Material {
  const next = numbers(seed);
  const pool = Math.round(posts * 0.42);
  const tags = Math.max(20, Math.round(posts / 200));
  const known = (): number => Math.floor(pool * next() ** 4);
  const anybody = (): number => (next() < 0.35 ? known() : Math.floor(pool * next()));
  const seen = new Set<string>();
  const file = openSync(path, 'w');
  let bytes = 0;
  let text = 'id,author,text,created_at,kind,in_reply_to\n';
  const begin = Date.UTC(2026, 2, 1);
  for (let i = 0; i < posts; i++) {
    const author = anybody();
    const what = next();
    const kind = i > 0 && what < 0.25 ? 'reply' : i > 0 && what < 0.4 ? 'repost' : 'post';
    const language = next() < 0.7 ? 'en' : next() < 0.5 ? 'fr' : 'es';
    const words: string[] = [];
    const length = 6 + Math.floor(next() * 14);
    for (let w = 0; w < length; w++) words.push(WORDS[language][Math.floor(next() * WORDS[language].length)]);
    if (next() < 0.35) {
      const mentioned = known();
      words.splice(Math.floor(next() * length), 0, `@account${mentioned}`);
    }
    for (let left = next() < 0.5 ? 1 + Math.floor(next() * 3) : 0; left > 0; left--)
      words.push(`#tag${Math.floor(tags * next() ** 3)}`);
    if (next() < 0.1)
      words.push(`https://place${Math.floor(200 * next() ** 3)}.example/page${Math.floor(next() * 50)}`);
    // A ring posts the same within seconds, now and then.
    const isOfRing = i % 500 < 4 && i >= 500;
    const time = new Date(begin + Math.floor((i / posts) * 92 * 86_400_000)).toISOString();
    const parent =
      kind === 'post' ? '' : `p${Math.max(0, i - 1 - Math.floor(next() ** 3 * Math.min(i, 5000)))}`;
    const round = Math.floor(i / 500);
    const writer = isOfRing ? `ring${i % 500}` : `account${author}`;
    seen.add(writer);
    if (!isOfRing) for (const word of words) if (word.startsWith('@')) seen.add(word.slice(1));
    text += isOfRing
      ? `p${i},${writer},the lamps must stay as they are round ${round} #tag1,${new Date(begin + round * 3_600_000 + 1000 * (i % 500)).toISOString()},post,\n`
      : `p${i},${writer},${words.join(' ')},${time},${kind},${parent}\n`;
    if (text.length > 1e6) {
      bytes += writeSync(file, text);
      text = '';
    }
  }
  bytes += writeSync(file, text);
  closeSync(file);
  return { posts, accounts: seen.size, bytes };
}

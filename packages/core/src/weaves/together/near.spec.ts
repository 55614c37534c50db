import fc from 'fast-check';
import { TogetherWeave } from '@pebble/contract';
import { messagesOfNode, messagesOfTie } from '../common/evidence';
import { weaveTogether } from './make';
import type { ThreadOccurrences } from '../common/occurrences';

/** Texts as words; each word is a thing that stands where it stands. */
function occurrences(texts: readonly string[]): ThreadOccurrences {
  const names = [...new Set(texts.join(' ').split(' '))].sort();
  const rows = texts.flatMap((text, message) =>
    text.split(' ').map((word, at) => ({ message, at, thing: names.indexOf(word) })),
  );
  return {
    count: rows.length,
    message: rows.map((row) => row.message),
    author: rows.map((row) => row.message % 2),
    thing: rows.map((row) => row.thing),
    time: rows.map((row) => row.message),
    at: rows.map((row) => row.at),
  };
}
const none = (): boolean => false;
const recipe = (part: object): TogetherWeave =>
  TogetherWeave.parse({ what: 'together', things: 'word', unit: 'near', ...part });

describe('weaveNear (co-occurrence within a window of words, common practice)', () => {
  const texts = occurrences(['a x x b c', 'b y a', 'c x x x x a']);

  it('ties what stands within so many words, each message once', () => {
    const woven = weaveTogether(texts, recipe({ within: 3 }), none);
    const ties = [...woven.source].map((s, e) => `${s}-${woven.target[e]} ${woven.weight[e]}`);
    // Things in the order of their letters: a 0, b 1, c 2, x 3, y 4.
    expect(ties).toEqual(['0-1 2', '0-3 2', '0-4 1', '1-2 1', '1-3 1', '1-4 1', '2-3 2']);
  });

  it('counts what is repeated once where messages with many different things are left out', () => {
    const repeated = occurrences(['a a a a b', 'a b c d e']);
    const woven = weaveTogether(repeated, recipe({ within: 5, mostInOne: 2 }), none);
    expect([...woven.source].map((s, e) => `${s}-${woven.target[e]} ${woven.weight[e]}`)).toEqual(['0-1 1']);
    expect(woven.notes[0]).toBe('1 message with more than 2 was left out.');
  });

  it('has those messages alone behind a tie in which both are near', () => {
    const woven = weaveTogether(texts, recipe({ within: 3 }), none);
    const rows = woven.evidence!();
    expect(messagesOfTie(rows, 0, 1)).toEqual([0, 1]);
    expect(messagesOfTie(rows, 0, 2)).toEqual([]);
    expect(messagesOfNode(rows, 2)).toEqual([0, 2]);
    expect(messagesOfNode(rows, 0)).toEqual([0, 1, 2]);
  });

  it('counts different authors, or the share of the messages of either, by choice', () => {
    const authors = weaveTogether(texts, recipe({ within: 3, weight: 'authors' }), none);
    expect(authors.weight[0]).toBe(2);
    // a stands in 3 messages, b in 2, near each other in 2.
    const share = weaveTogether(texts, recipe({ within: 3, scale: 'jaccard' }), none);
    expect(share.weight[0]).toBeCloseTo(2 / 3, 12);
  });

  it('gives what standing in the same message gives, where the window is as long as the texts', () => {
    const word = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f');
    const text = fc.array(word, { minLength: 1, maxLength: 8 }).map((words) => words.join(' '));
    fc.assert(
      fc.property(fc.array(text, { minLength: 1, maxLength: 12 }), (all) => {
        const given = occurrences(all);
        const near = weaveTogether(given, recipe({ within: 20 }), none);
        const same = weaveTogether(given, recipe({ unit: 'message' }), none);
        expect([near.source, near.target, near.weight]).toEqual([same.source, same.target, same.weight]);
        expect(near.columns['days']).toEqual(same.columns['days']);
      }),
    );
  });
});

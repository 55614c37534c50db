import fc from 'fast-check';
import { scorers } from '.';

const { tone, incivility } = scorers;
const marked = (text: string, name: 'tone' | 'incivility'): string[] =>
  scorers[name].score(text).hits.map(({ start, end }) => text.slice(start, end));

describe('tone', () => {
  it('is the mean weight of the words of the list over 5 (AFINN-165: good 3, terrible -3, love 3; from memory)', () => {
    expect(tone.score('A good lamp').value).toBeCloseTo(0.6, 10);
    expect(tone.score('A terrible lamp').value).toBeCloseTo(-0.6, 10);
    expect(tone.score('good and terrible').value).toBe(0);
    expect(tone.score('The lamp is amber').value).toBe(0);
    expect(marked('I LOVE the lamps', 'tone')).toEqual(['LOVE']);
  });

  it('turns what is denied', () => {
    expect(tone.score('not a good lamp').value).toBeCloseTo(-0.3, 10);
    expect(tone.score('It isn’t terrible').value).toBeCloseTo(0.3, 10);
  });

  it('leaves hashtags, handles and links aside', () => {
    expect(tone.score('#good @terrible https://love.example').hits).toEqual([]);
    expect(tone.score('constructor toString').hits).toEqual([]);
  });
});

describe('incivility', () => {
  it('is 0 for civil words, and grows with what is uncivil', () => {
    const scores = [
      'I do not agree with the plan.',
      'This plan is nonsense',
      'You are a liar',
      'Shut up, you idiot!!!',
    ].map((text) => incivility.score(text).value);
    expect(scores[0]).toBe(0);
    expect([...scores].sort((a, b) => a - b)).toEqual(scores);
    expect(scores[3]).toBeGreaterThan(0.9);
  });

  it('weighs belittling words by half again when they are meant for somebody', () => {
    expect(incivility.score('a stupid idea').value).toBeCloseTo(0.45, 10);
    expect(incivility.score('your stupid idea').value).toBeCloseTo(0.675, 10);
  });

  it('hears shouting', () => {
    expect(incivility.score('KEEP THESE LAMPS BURNING TONIGHT').value).toBeCloseTo(0.2, 10);
    expect(incivility.score('NASA and BBC').value).toBe(0);
  });

  it('marks what made the score', () => {
    expect(marked('Shut up, you clown', 'incivility')).toEqual(['Shut up', 'clown']);
  });
});

it.each(['tone', 'incivility'] as const)(
  '%s stays in its range, with hits inside the text and apart',
  (name) => {
    const word = fc.constantFrom(
      'you',
      'idiot',
      'good',
      'bad',
      'shut up',
      '!!!',
      'not',
      'LAMP',
      '#tag',
      '@ann',
      'fuck',
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 30 }), (list) => {
        const text = list.join(' ');
        const { value, hits } = scorers[name].score(text);
        const [least, most] = scorers[name].range;
        expect(value).toBeGreaterThanOrEqual(least);
        expect(value).toBeLessThanOrEqual(most);
        let last = 0;
        for (const { start, end } of hits) {
          expect(start).toBeGreaterThanOrEqual(last);
          expect(end).toBeGreaterThan(start);
          last = end;
        }
        expect(last).toBeLessThanOrEqual(text.length);
      }),
    );
  },
);

import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Routine } from '@pebble/contract';
import { answersOf, filesByQuestion, readJson } from './answers';
import { EXIT, Refused } from './errors';

const routine = Routine.parse({
  form: 1,
  name: 'Asks',
  questions: [
    { name: 'posts', kind: 'file', ask: 'Posts?' },
    { name: 'people', kind: 'file', ask: 'People?' },
    { name: 'least', kind: 'number', ask: 'Least?', default: 1 },
    { name: 'sure', kind: 'yes or no', ask: 'Sure?', default: false },
    { name: 'from', kind: 'day', ask: 'From?', default: null },
    { name: 'without', kind: 'list', ask: 'Without?', default: [] },
    { name: 'same', kind: 'choice', ask: 'Same?', default: 'text', choices: ['text', 'link'] },
  ],
  steps: [{ name: 'a', kind: 'find-names', parameters: {} }],
});

const refusal = (work: () => unknown): { message: string; exit: number } => {
  try {
    work();
  } catch (error) {
    if (error instanceof Refused) return { message: error.message, exit: error.exit };
    throw error;
  }
  throw new Error('It was not refused.');
};

describe('files that are given to a routine', () => {
  it('answer the question that they name, and otherwise the first one', () => {
    const files = filesByQuestion(routine, ['a.csv', 'people=b.csv', '/x/c=d.csv']);
    expect([...files]).toEqual([
      ['posts', ['a.csv', '/x/c=d.csv']],
      ['people', ['b.csv']],
    ]);
  });

  it('are refused where none is asked for', () => {
    const without = { ...routine, questions: routine.questions.slice(2) };
    expect(refusal(() => filesByQuestion(without, ['a.csv']))).toEqual({
      message: 'This routine asks for no file, but a.csv was given.',
      exit: EXIT.usage,
    });
  });
});

describe('answers as they are written', () => {
  it('become what the routine takes', () => {
    const set = ['least=none', 'sure=yes', 'from=2026-03-01', 'without=#a| b ', 'same=link'];
    expect(answersOf(routine, set)).toEqual({
      least: null,
      sure: true,
      from: '2026-03-01',
      without: ['#a', 'b'],
      same: 'link',
    });
    expect(answersOf(routine, ['without=', 'from=none'])).toEqual({ without: [], from: null });
  });

  it.each([
    ['least=many', '“many” is no answer to least: it is to be a number, or “none”.'],
    ['sure=perhaps', '“perhaps” is no answer to sure: it is to be yes or no.'],
    ['posts=a.csv', 'posts asks for a file: give it by --in posts=FILE.'],
    [
      'colour=red',
      '“colour=red” sets nothing that is asked. Asked are posts, people, least, sure, from, without, same.',
    ],
  ])('are refused with a reason: %s', (text, message) => {
    expect(refusal(() => answersOf(routine, [text]))).toEqual({ message, exit: EXIT.usage });
  });
});

describe('a file of JSON', () => {
  it('is read, and what is none is said by its name', () => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-json-'));
    const path = join(folder, 'a.json');
    writeFileSync(path, '{"a": 1}');
    expect(readJson(path)).toEqual({ a: 1 });
    writeFileSync(path, '{a');
    expect(refusal(() => readJson(path)).message).toContain(`${path} is no JSON`);
    expect(refusal(() => readJson(join(folder, 'b.json'))).message).toBe(
      `There is no file ${join(folder, 'b.json')}.`,
    );
  });
});

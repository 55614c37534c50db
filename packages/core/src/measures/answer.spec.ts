import { QuestionId, QuestionSettings } from '@pebble/contract';
import { makeGraph } from '../graph/graph';
import { kite } from '../testing/known';
import { answerQuestions } from './answer';
import { ANSWER_COLUMNS, NODE_QUESTIONS, questionOf } from './questions';

const settings = QuestionSettings.parse({});
const groups = [0, 0, 0, 0, 0, 0, 0, 1, 1, 1];

describe('questions about nodes', () => {
  it('are each answered by the columns that they name', () => {
    for (const { id, columns } of NODE_QUESTIONS) {
      const isTwoMode = id === 'two-mode';
      const sorts = isTwoMode ? ['person', 'person', 'meeting'] : null;
      const graph = isTwoMode ? makeGraph(3, [0, 1], [2, 2]) : kite();
      const { columns: found, notes } = answerQuestions(graph, true, [id], settings, { groups, sorts });
      expect(Object.keys(found)).toEqual(columns.map(({ name }) => name));
      expect(notes).toEqual([]);
    }
    expect(NODE_QUESTIONS.map(({ id }) => id)).toEqual(QuestionId.options);
    expect(new Set(ANSWER_COLUMNS).size).toBe(ANSWER_COLUMNS.length);
  });

  it('say where they come from, their range, and when they mislead', () => {
    for (const { columns, misleads } of NODE_QUESTIONS) {
      expect(misleads).toMatch(/\.$/);
      for (const { how } of columns)
        expect(how).toMatch(/; (0 to 1|0 and up|all together 1|the largest is 1|low|0 for)/);
    }
    expect(questionOf('core').asks).toBe('Who is in the thick of it?');
  });

  it('mark the ties that alone hold parts together: H-I and I-J in the kite of Krackhardt (1990)', () => {
    const { ties } = answerQuestions(kite(), false, ['holds-together'], settings, { groups, sorts: null });
    expect(ties['bridge'].flatMap((one, e) => (one === 'bridge' ? [e] : []))).toEqual([16, 17]);
  });

  it('leave a question out that needs a direction, and say so', () => {
    const { columns, notes } = answerQuestions(kite(), false, ['hubs', 'core'], settings, {
      groups,
      sorts: null,
    });
    expect(Object.keys(columns)).toEqual(['core']);
    expect(notes).toEqual(['Ties of this network have no direction: a question that needs it was left out.']);
  });

  it('leave a question out that needs groups where there are none, and say so', () => {
    const { columns, notes } = answerQuestions(kite(), true, ['between-groups'], settings, {
      groups: null,
      sorts: null,
    });
    expect([columns, notes.length]).toEqual([{}, 1]);
  });

  it('leave out what makes no sense of a network with two sorts of nodes, or with one, and say why', () => {
    const asked = answerQuestions(makeGraph(2, [0], [1]), true, ['circle', 'answers'], settings, {
      groups: null,
      sorts: ['person', 'meeting'],
    });
    expect([asked.columns, asked.notes.length]).toEqual([{}, 2]);
    const { notes } = answerQuestions(kite(), true, ['two-mode'], settings, { groups, sorts: null });
    expect(notes).toEqual(['A question was left out. It is asked of two-mode networks alone.']);
  });

  it('tell nothing sent from nothing received, and take no ties of a node to itself', () => {
    const graph = makeGraph(3, [0, 0, 2], [1, 0, 0], [2, 9, 3]);
    const { columns } = answerQuestions(graph, true, ['answers'], settings, { groups, sorts: null });
    expect([...columns['receivedPerSent']]).toEqual([1.5, NaN, 0]);
  });

  it('answer also of an empty network, and report how far they are', () => {
    const shares: number[] = [];
    const all = QuestionId.options;
    const { columns } = answerQuestions(makeGraph(0, [], []), true, all, settings, {
      groups: [],
      sorts: null,
      progress: (s) => shares.push(s),
    });
    expect(Object.values(columns).every((values) => values.length === 0)).toBe(true);
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
  });
});

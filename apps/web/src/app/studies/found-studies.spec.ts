import { exampleStudy } from '../../testing/examples';
import { foundStudies } from './found-studies';

const study = (name: string, messages: number, changedAt: string) => ({
  ...exampleStudy,
  id: name,
  name,
  messages,
  changedAt,
});
const all = [
  study('Lamps 10', 5, '2026-03-01T00:00:00Z'),
  study('lamps 9', 50, '2026-02-01T00:00:00Z'),
  study('Harbour lights', 1, '2026-04-01T00:00:00Z'),
];
const names = (...asked: [words: string, order: 'change' | 'name' | 'messages']) =>
  foundStudies(all, ...asked).map(({ name }) => name);

describe('the studies', () => {
  it('stand in the order that is asked for, numbers by their size', () => {
    expect(names('', 'change')).toEqual(['Harbour lights', 'Lamps 10', 'lamps 9']);
    expect(names('', 'name')).toEqual(['Harbour lights', 'lamps 9', 'Lamps 10']);
    expect(names('', 'messages')).toEqual(['lamps 9', 'Lamps 10', 'Harbour lights']);
  });

  it('are found by all words of their names, in any case', () => {
    expect(names('LAMPS 1', 'change')).toEqual(['Lamps 10']);
    expect(names('  ', 'change')).toHaveLength(3);
    expect(names('quay', 'change')).toEqual([]);
  });
});

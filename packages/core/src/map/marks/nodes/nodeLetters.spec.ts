import type { MapDescription } from '@pebble/contract';
import { rowOfNodes } from '../../../testing/rowOfNodes';
import { initialsOf } from './nodeLetters';
import { contrast } from '../../style/palette';
import type { Scene } from '../../scene/scene';

const names = ['lamp_planner', 'nightbus14', 'ana de la Cruz', '42', 'ü-ß'];
const signs = ['🪔', 'harbour', '', '👩‍🚒 crew', '🇺🇳'];

const draw = (shape: Partial<MapDescription['shape']>, scale = 3): Scene =>
  rowOfNodes(names, shape, { scale, columns: { sign: signs } });

describe('what is written inside of nodes', () => {
  it('are initials of up to two words', () => {
    expect(names.map(initialsOf)).toEqual(['LP', 'N', 'AD', '4', 'Üß']);
    expect(draw({ letters: 'initials' }).texts.map(({ text }) => text)).toEqual(names.map(initialsOf));
  });

  it('or the first signs of a column, an emoji of several parts being one', () => {
    const { texts } = draw({ letters: 'sign' });
    expect(texts.map(({ text }) => text)).toEqual(['🪔', 'ha', '👩‍🚒', '🇺🇳']);
  });

  it('lies within the node, in the ink with more contrast on its colour', () => {
    const { texts, discs } = draw({ letters: 'initials' });
    const [{ discs: first }] = discs;
    for (const { fill, size } of texts) {
      const other = fill === '#FFFFFF' ? '#1E2A32' : '#FFFFFF';
      const ground = discs.map((batch) => batch.fill);
      expect(ground.some((colour) => contrast(fill, colour) >= contrast(other, colour))).toBe(true);
      expect(size).toBeLessThan(2 * first[2]);
    }
    expect(new Set(texts.map(({ fill }) => fill)).size).toBeGreaterThan(1);
  });

  it('is left out where nodes are small, are pies, or the column is not there', () => {
    expect(draw({ letters: 'initials' }, 0.05).texts).toEqual([]);
    expect(draw({ letters: 'initials', pies: true }).texts).toEqual([]);
    expect(draw({ letters: 'gone' }).texts).toEqual([]);
    expect(draw({}).texts).toEqual([]);
  });
});

import { exampleNetwork } from '../../testing/examples';
import { networkToOpen, wholesIn } from './slices';

describe('networks of a study', () => {
  const newest = exampleNetwork({ id: 'new' });
  const slice = exampleNetwork({ id: 'slice', slice: { of: 'old', place: 0, title: 'March' } });
  const old = exampleNetwork({ id: 'old' });

  it('are gone through without the slices of those that are there', () => {
    expect(wholesIn([newest, slice, old]).map(({ id }) => id)).toEqual(['new', 'old']);
    expect(wholesIn([newest, slice]).map(({ id }) => id)).toEqual(['new', 'slice']);
  });

  it('are opened as they were left, or the newest', () => {
    expect(networkToOpen([newest, slice, old], 'old')?.id).toBe('old');
    expect(networkToOpen([newest, slice, old], 'slice')?.id).toBe('slice');
    expect(networkToOpen([newest, old], 'gone')?.id).toBe('new');
    expect(networkToOpen([slice, newest], null)?.id).toBe('slice');
    expect(networkToOpen([], null)).toBeNull();
  });
});

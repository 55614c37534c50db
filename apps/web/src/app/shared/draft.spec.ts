import { computed, signal } from '@angular/core';
import { draftAbout, draftOf } from './draft';

describe('a draft', () => {
  it('stays while the same is read again, and begins anew when something else is', () => {
    const read = signal({ codes: ['a', 'b'] });
    const draft = draftOf(() => read().codes);
    draft.set(['a', 'typed']);
    read.set({ codes: ['a', 'b'] });
    expect(draft()).toEqual(['a', 'typed']);
    read.set({ codes: ['a'] });
    expect(draft()).toEqual(['a']);
  });

  it('holds a choice when what it depends on is computed anew with the same result', () => {
    const columns = signal([{ name: 'degree' }]);
    const names = computed(() => columns().map(({ name }) => name));
    const chosen = draftOf(() => names()[0]);
    chosen.set('strength');
    columns.set([{ name: 'degree' }, { name: 'new' }]);
    expect(chosen()).toBe('strength');
  });

  it('about something holds as long as it is about the same', () => {
    const network = signal({ id: 'a', columns: 1 });
    const words = draftAbout<string | null>(
      () => network().id,
      () => null,
    );
    words.set('my own');
    network.set({ id: 'a', columns: 2 });
    expect(words()).toBe('my own');
    network.set({ id: 'b', columns: 2 });
    expect(words()).toBeNull();
  });
});

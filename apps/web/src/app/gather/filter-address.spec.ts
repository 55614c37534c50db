import { addressOf, filterOf, isSame } from './filter-address';

describe('a filter in the address', () => {
  it('is the same when it is read again', () => {
    const filter = {
      text: 'lamps OR quay',
      kind: 'reply' as const,
      from: 1_772_323_200_000,
      sample: 50,
      seed: 2,
    };
    expect(filterOf(addressOf(filter))).toEqual(filter);
  });

  it('leaves no trace where it was emptied', () => {
    expect(addressOf({ text: '', author: undefined })).toEqual({});
    expect(filterOf({})).toEqual({});
  });

  it('is none where the address makes no sense', () => {
    expect(filterOf({ kind: 'shout' })).toEqual({});
  });

  it('is compared by what it asks for', () => {
    expect(isSame({ a: '1' }, { a: '1' })).toBe(true);
    expect(isSame({ a: '1' }, { a: '2' })).toBe(false);
    expect(isSame({ a: '1' }, {})).toBe(false);
  });
});

import { categoryOrder } from './colours';

describe('the order in which categories have their colours', () => {
  it('is that of their numbers, where they have some: in every slice the same', () => {
    const march = new Map([
      ['2', 40],
      ['1', 3],
      ['', 9],
    ]);
    expect(categoryOrder(march)).toEqual(['1', '2']);
    // A number that is missing here keeps its colour for where it is not.
    expect(categoryOrder(new Map([['3', 5]]))).toEqual(['1', '2', '3']);
  });

  it('is that of how many nodes they have, where they have names', () => {
    const offices = new Map([
      ['press', 3],
      ['archive', 7],
      ['board', 3],
      ['0', 2],
    ]);
    expect(categoryOrder(offices)).toEqual(['archive', 'board', 'press', '0']);
    // 0 is no number of a group: nobody has the colour before the first.
    expect(
      categoryOrder(
        new Map([
          ['0', 2],
          ['1', 5],
        ]),
      ),
    ).toEqual(['1', '0']);
  });
});

import { libraryNames, listNames, type NameFinder } from './names';

describe('libraryNames', () => {
  let find: NameFinder;
  beforeAll(async () => {
    find = await libraryNames();
  });

  it('finds people, organisations and places in English', () => {
    const found = find(
      'Yesterday Mary Holm of the Sallowmere Lighting Board spoke in London with Quay Traders Ltd. @ann #Lamps',
    );
    expect(found).toContainEqual({ label: 'Mary Holm', kind: 'person' });
    expect(found).toContainEqual({ label: 'Sallowmere Lighting Board', kind: 'organisation' });
    expect(found).toContainEqual({ label: 'London', kind: 'place' });
  });

  it('leaves links, handles and hashtags aside', () => {
    expect(find('@mary_holm https://london.example #London')).toEqual([]);
  });
});

describe('listNames', () => {
  const find = listNames(
    ['Lighting Board', 'Sallowmere Lighting Board', 'SLB', 'C++'],
    'words',
    'organisation',
  );

  it('finds whole words, whatever their case, the longest name where several begin', () => {
    expect(find('The sallowmere lighting  board and the SLB').map(({ label }) => label)).toEqual([
      'Sallowmere Lighting Board',
      'SLB',
    ]);
    expect(find('SLBs and slbx')).toEqual([]);
  });

  it('finds beginnings of words where that is asked for', () => {
    const lamps = listNames(['lamp'], 'beginnings', 'unknown');
    expect(lamps('Lamplight over the lampposts')).toEqual([{ label: 'lamp', kind: 'unknown' }]);
    expect(lamps('headlamp')).toEqual([]);
  });

  it('takes marks in a name as they are', () => {
    expect(listNames(['a.b'], 'words', 'unknown')('axb')).toEqual([]);
    expect(listNames([' ', ''], 'words', 'unknown')('anything')).toEqual([]);
  });
});

import { matchDetails } from './details';

describe('matchDetails', () => {
  const handles = ['ann', 'ben', 'c3'];
  const names = ['', 'Ben of the quay', 'Clubhouse'];
  const match = (...rows: [string, Record<string, string>][]) =>
    matchDetails(
      handles,
      names,
      rows.map(([key, attributes]) => ({ key, attributes })),
    );

  it('finds nodes by handle, without "@" and case, and by label', () => {
    const { columns, nodes, unknown } = match(
      ['@Ann', { kind: 'person' }],
      ['clubhouse ', { kind: 'place' }],
    );
    expect(columns).toEqual({ kind: ['person', '', 'place'] });
    expect([nodes, unknown]).toEqual([2, []]);
  });

  it('makes numbers of columns that hold only numbers, with gaps as no value', () => {
    expect(match(['ann', { age: '4' }], ['ben', { age: '2.5' }]).columns).toEqual({
      age: Float64Array.of(4, 2.5, NaN),
    });
    expect(match(['ann', { code: '9007199254740993' }]).columns).toEqual({
      code: ['9007199254740993', '', ''],
    });
  });

  it('lists names that fit no node', () => {
    expect(match(['zoe', { a: '1' }])).toEqual({ columns: {}, nodes: 0, unknown: ['zoe'] });
  });
});

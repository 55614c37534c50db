import fc from 'fast-check';
import { typedColumn } from '../../network/typedColumn';
import { guessColumns } from '../columns';
import { NetworkBuilder } from './foundNetwork';
import { readGml } from './gml';
import { readGraphml } from './graphml';
import { readJsonGraph } from './jsonGraph';

const CODES = ['007', '01067', '+49301234', '1.10', '1e5', '.5', '5.', '-0', '9007199254740993', '1e400'];

describe('what a column holds', () => {
  it.each(CODES)('is text where a value would not be written back the same: %s', (code) => {
    expect(typedColumn([code, '', '3'])).toEqual([code, '', '3']);
  });

  it('is a number where every value, written back, is the same', () => {
    expect(typedColumn(['1', '', '-2.5', '1200'])).toEqual(Float64Array.of(1, NaN, -2.5, 1200));
    // Whole numbers of a table of decimals; "12" beside "12.0" would be one number of two writings.
    expect(typedColumn(['12.0', '2.5'])).toEqual(Float64Array.of(12, 2.5));
    expect(typedColumn(['12.0', '12'])).toEqual(['12.0', '12']);
  });

  it('loses no writing, whatever is written', () => {
    const written = fc.oneof(
      fc.constantFrom(...CODES, '1', '2.5', '12.0', ''),
      fc.double({ noNaN: true }).map(String),
      fc.string(),
    );
    fc.assert(
      fc.property(fc.array(written), (column) => {
        const typed = typedColumn(column);
        if (!(typed instanceof Float64Array)) return;
        const back = Array.from(typed, (value) => (Number.isNaN(value) ? '' : String(value)));
        expect(back).toEqual(column.map((value) => value.replace(/\.0$/, '')));
        expect(new Set(back).size).toBe(new Set(column).size);
      }),
    );
  });

  it('is what the researcher or the file says, where numbers can be held', () => {
    expect(typedColumn(['007', '1.10'], 'number')).toEqual(Float64Array.of(7, 1.1));
    expect(typedColumn(['1', '2'], 'text')).toEqual(['1', '2']);
    expect(typedColumn(['1', '1e400'], 'number')).toEqual(['1', '1e400']);
  });

  it('of a table is guessed to be an attribute for codes', () => {
    const roles = guessColumns(
      ['source', 'target', 'postcode', 'size'],
      [['a', 'b', '01067', '12']],
      'network',
    );
    expect(roles.map(({ role }) => role)).toEqual(['source', 'target', 'attribute', 'number']);
  });

  it('is told by the types of GraphML, by quotation marks in GML, and by JSON', () => {
    const graphml = readGraphml(`<graphml><key id="c" for="node" attr.name="code" attr.type="string"/>
      <key id="n" for="node" attr.name="size" attr.type="double"/><key id="b" for="node" attr.name="big" attr.type="long"/>
      <graph edgedefault="directed"><node id="a"><data key="c">10115</data><data key="n">1.10</data><data key="b">9007199254740993</data></node>
      </graph></graphml>`);
    expect([graphml.nodes['code'], graphml.nodes['size'], graphml.nodes['big']]).toEqual([
      ['10115'],
      Float64Array.of(1.1),
      ['9007199254740993'],
    ]);
    expect(graphml.notes).toEqual([
      'The column “big” is kept as text: it holds “9007199254740993”, which no number holds exactly.',
    ]);
    const gml = readGml('graph [ node [ id 1 code "10115" size 1.10 ] ]');
    expect([gml.nodes['code'], gml.nodes['size']]).toEqual([['10115'], Float64Array.of(1.1)]);
    const json = readJsonGraph(
      '{"graph":{"nodes":{"a":{"metadata":{"code":"10115","size":1.10}}},"edges":[]}}',
    );
    expect([json.nodes['code'], json.nodes['size']]).toEqual([['10115'], Float64Array.of(1.1)]);
  });
});

describe('columns and weights of a network from a file', () => {
  it('keep what they are beside columns of the network’s own, under another name that is told', () => {
    const builder = new NetworkBuilder(true);
    builder.describeNode('a', '', { community: 'north', degree: '7', betweenness: 'high', place: 'quay' });
    builder.edge('a', 'b', '1', { first: 'x', ['__proto__']: 'odd' }, 1);
    const { nodes, edges, notes } = builder.finish();
    expect(nodes['community in file']).toEqual(['north', '']);
    expect(nodes['degree in file']).toEqual(Float64Array.of(7, NaN));
    expect([nodes['place'], edges['first in file']]).toEqual([['quay', ''], ['x']]);
    expect(notes).toContain(
      'The column “community” of the file is called “community in file” here, since every network has one of its own.',
    );
  });

  it('called __proto__ or constructor are columns like others', () => {
    const text = '{"graph":{"nodes":{"a":{"metadata":{"__proto__":"odd","constructor":"c"}}},"edges":[]}}';
    const { nodes } = readJsonGraph(text);
    expect(Object.keys(nodes)).toEqual(['id', 'handle', 'name', '__proto__ in file', 'constructor']);
    expect(nodes['constructor']).toEqual(['c']);
  });

  it('say what was rounded, and what of repeated ties was kept', () => {
    const builder = new NetworkBuilder(true);
    builder.edge('a', 'b', '9007199254740993', { tone: 'warm', since: '1' }, 1);
    builder.edge('a', 'b', '1', { tone: 'cold', since: '1' }, 2);
    const { notes } = builder.finish();
    expect(notes).toEqual([
      '1 repeated tie was added to the first of their pair.',
      'Where repeated ties differ in “tone”, the first value was kept.',
      'A weight above 9,007,199,254,740,991 cannot be held to the last digit and was rounded (the first is 9007199254740993).',
    ]);
    expect(() => new NetworkBuilder(true).edge('a', 'b', '1e400', {}, 3)).toThrow(
      'larger than a number can be',
    );
  });
});

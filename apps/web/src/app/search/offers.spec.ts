import { offersFor, type Findable } from './offers';

const there: Findable = {
  study: { id: 's1', name: 'Lamps' },
  studies: [
    { id: 's1', name: 'Lamps' },
    { id: 's2', name: 'Harbour' },
  ],
  networks: [{ id: 'n1', name: 'Who answers whom', sentence: 'Accounts tied when …' }],
  steps: [{ id: 4, sentence: '9,000 messages were imported from tidepost.csv.' }],
  nodes: ['night_home', 'owl_night', 'overnight', 'nightbus14', 'page_news'],
  network: 'n1',
};
const titles = (typed: string, of: Findable = there) =>
  offersFor(typed, of).map(({ name, offers }) => [name, offers.map(({ title }) => title)]);

describe('the search for anything', () => {
  it('offers the stops, the networks and the other studies where nothing was typed', () => {
    expect(titles('')).toEqual([
      ['Go to', ['Gather', 'Tidy', 'Weave', 'Map', 'Read', 'Publish', 'Logbook']],
      ['Networks', ['Who answers whom']],
      ['Studies', ['Harbour']],
      ['More', ['Night or paper']],
    ]);
  });

  it('puts what begins with the words first, then words within, then what holds them', () => {
    expect(titles('night')).toEqual([
      ['Nodes of the open map', ['night_home', 'nightbus14', 'owl_night', 'overnight']],
      ['More', ['Messages with “night”', 'Night or paper']],
    ]);
  });

  it('leads to a node by the address of its map, and to messages by a search', () => {
    const [nodes, more] = offersFor('page_n', there);
    expect(nodes.offers[0].to).toEqual({
      what: 'address',
      commands: ['/studies', 's1', 'map', 'n1'],
      query: { node: 'page_news' },
    });
    expect(more.offers[0].to).toMatchObject({ query: { text: 'page_n' } });
  });

  it('finds steps by their sentences', () => {
    expect(titles('imported from')[0]).toEqual([
      'Steps',
      ['9,000 messages were imported from tidepost.csv.'],
    ]);
  });

  it('offers studies alone where none is open', () => {
    const none = { ...there, study: null, networks: [], steps: [], nodes: [], network: null };
    expect(titles('', none)).toEqual([
      ['Studies', ['Lamps', 'Harbour']],
      ['More', ['Night or paper']],
    ]);
  });
});

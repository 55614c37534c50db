import type { Params } from '@angular/router';

/** Something that the search can lead to. */
export interface Offer {
  readonly title: string;
  /** What it is, in a word or a sentence. */
  readonly says: string;
  readonly to: Target;
}

export type Target =
  | { readonly what: 'address'; readonly commands: readonly string[]; readonly query?: Params }
  | { readonly what: 'theme' };

interface Section {
  readonly name: string;
  readonly offers: readonly Offer[];
}

/** What there is to be found. */
export interface Findable {
  readonly study: { readonly id: string; readonly name: string } | null;
  readonly studies: readonly { readonly id: string; readonly name: string }[];
  readonly networks: readonly { readonly id: string; readonly name: string; readonly sentence: string }[];
  readonly steps: readonly { readonly id: number; readonly sentence: string }[];
  /** Names of the nodes of the open map, and which network that is. */
  readonly nodes: readonly string[];
  readonly network: string | null;
}

const MOST = 7;
const STOPS = [
  ['Gather', 'what came, and its messages'],
  ['Tidy', 'what is one, what is left out'],
  ['Weave', 'what ties what'],
  ['Map', 'the network as a picture'],
  ['Read', 'what groups are about, what changed, who is shared'],
  ['Publish', 'figures and files'],
  ['Logbook', 'every step, and the methods text'],
] as const;

/** What fits what was typed, by what it is; where nothing was typed the stops and the networks. */
export function offersFor(typed: string, there: Findable): readonly Section[] {
  const asked = typed.trim();
  const { study, network } = there;
  const inStudy = (...rest: string[]): readonly string[] => ['/studies', study?.id ?? '', ...rest];
  const sections: Section[] = [
    {
      name: 'Go to',
      offers: study
        ? best(asked, STOPS, ([name]) => name).map(([name, says]) =>
            offer(name, says, inStudy(name.toLowerCase())),
          )
        : [],
    },
    {
      name: 'Nodes of the open map',
      offers:
        asked === '' || network === null
          ? []
          : best(asked, there.nodes, (name) => name).map((node) =>
              offer(node, 'on the map', inStudy('map', network), { node }),
            ),
    },
    {
      name: 'Networks',
      offers: best(asked, there.networks, ({ name }) => name).map(({ id, name, sentence }) =>
        offer(name, sentence, inStudy('map', id)),
      ),
    },
    {
      name: 'Studies',
      offers: best(
        asked,
        there.studies.filter(({ id }) => id !== study?.id),
        ({ name }) => name,
      ).map(({ id, name }) => offer(name, 'open this study', ['/studies', id, 'gather'])),
    },
    {
      name: 'Steps',
      offers:
        asked === ''
          ? []
          : best(asked, there.steps, ({ sentence }) => sentence).map(({ id, sentence }) =>
              offer(sentence, `step ${id} in the logbook`, inStudy('logbook')),
            ),
    },
    {
      name: 'More',
      offers: [
        ...(study && asked !== ''
          ? [offer(`Messages with “${asked}”`, 'in the reading list', inStudy('gather'), { text: asked })]
          : []),
        ...best(asked, ['Night or paper'], (name) => name).map((title): Offer => ({
          title,
          says: 'dark or light',
          to: { what: 'theme' },
        })),
      ],
    },
  ];
  return sections.filter(({ offers }) => offers.length > 0);
}

const offer = (title: string, says: string, commands: readonly string[], query?: Params): Offer => ({
  title,
  says,
  to: { what: 'address', commands, query },
});

/** The first that fit: those that begin with what was typed, then those of which a word does, then those that hold it. */
function best<T>(asked: string, all: readonly T[], nameOf: (one: T) => string): T[] {
  const wanted = asked.toLowerCase();
  if (wanted === '') return all.slice(0, MOST);
  const found: T[][] = [[], [], []];
  for (const one of all) {
    const name = nameOf(one).toLowerCase();
    const at = name.indexOf(wanted);
    if (at < 0) continue;
    const isWord = /[^\p{L}\p{N}]/u.test(name[at - 1] ?? '');
    found[at === 0 ? 0 : isWord ? 1 : 2].push(one);
    if (found[0].length === MOST) break;
  }
  return found.flat().slice(0, MOST);
}

import type { ColumnInfo, QuestionId } from '@pebble/contract';

/** A measure as a column of the nodes. */
export interface MeasureColumn extends ColumnInfo {
  /** What a high value means, of the node that has it: "reaches the others in few steps". */
  readonly high: string;
}

/** A question about the nodes of a network, with the measures that answer it. */
export interface Question {
  readonly id: QuestionId;
  readonly asks: string;
  readonly says: string;
  /** When the answer leads astray. */
  readonly misleads: string;
  /** Whether ties must have a direction. */
  readonly directedOnly: boolean;
  /** Whether it is asked of two-mode networks alone; or why it makes no sense there. */
  readonly twoMode?: { readonly only: true } | { readonly not: string };
  readonly columns: readonly MeasureColumn[];
}

function measure(name: string, title: string, how: string, high: string): MeasureColumn {
  return { name, title, type: 'number', how, high };
}

export const NODE_QUESTIONS: readonly Question[] = [
  {
    id: 'basics',
    asks: 'Who has most ties, and who is addressed most?',
    says: 'Every network has these at once; of a part that is shown they can be computed again.',
    misleads: 'Being shouted at counts like being asked; and one pair can talk all day.',
    directedOnly: false,
    columns: [
      measure(
        'inDegree',
        'in-degree',
        'Other nodes with a tie to it; 0 and up.',
        'is addressed by many others',
      ),
      measure(
        'outDegree',
        'out-degree',
        'Other nodes that it has a tie to; 0 and up.',
        'addresses many others',
      ),
      measure('degree', 'degree', 'Other nodes tied with it; 0 and up.', 'is tied with many others'),
      measure(
        'inStrength',
        'in-strength',
        'Weights of the ties to it, added up; 0 and up.',
        'is addressed often',
      ),
      measure(
        'outStrength',
        'out-strength',
        'Weights of the ties from it, added up; 0 and up.',
        'addresses others often',
      ),
      measure(
        'strength',
        'strength',
        'Weights of all its ties, added up; 0 and up.',
        'has much to do with others',
      ),
      measure(
        'betweenness',
        'betweenness',
        'Share of all pairs of others whose shortest path runs through it, along the direction of ties (Brandes 2001); 0 to 1.',
        'lies between others',
      ),
    ],
  },
  {
    id: 'bridges',
    asks: 'Who stands between others?',
    says: 'On how many shortest paths between others a node lies, once strong ties count as short, once ties may be gone both ways.',
    misleads: 'Talk does not keep to shortest paths; and a tie of one message may be the bridge.',
    directedOnly: false,
    columns: [
      measure(
        'betweennessWeighted',
        'betweenness by weight',
        'Share of all pairs of others whose shortest path runs through it, a tie of weight w being 1 / w long (Newman 2001; Brandes 2001); 0 to 1, along the direction of ties where they have one.',
        'lies between others on strong ties',
      ),
      measure(
        'betweennessEither',
        'betweenness either way',
        'Share of all pairs of others whose shortest path runs through it, ties taken without direction and in steps (Freeman 1979; Brandes 2001); 0 to 1.',
        'lies between others, whoever began',
      ),
    ],
  },
  {
    id: 'close',
    asks: 'Who is near to everybody?',
    says: 'How few steps lead from a node to all others, along ties in either direction, whatever their weight.',
    misleads:
      'In a network of several components nobody is near to all: closeness then counts how many are reached at all.',
    directedOnly: false,
    columns: [
      measure(
        'closeness',
        'closeness',
        'Nodes reached, over the sum of their distances, times the share of all others that is reached (Wasserman & Faust 1994); 0 to 1, none for a node that reaches nobody.',
        'reaches the others in few steps',
      ),
      measure(
        'harmonic',
        'harmonic closeness',
        'Mean of 1 / distance to all others, those out of reach counting 0 (Boldi & Vigna 2014); 0 to 1.',
        'reaches the others in few steps',
      ),
    ],
  },
  {
    id: 'well-connected',
    asks: 'Who is well connected to the well connected?',
    says: 'A node is high when nodes that are high themselves are tied with it, by the weight of their ties.',
    misleads: 'Members of one tight group raise each other: a small closed circle may come out on top.',
    directedOnly: false,
    columns: [
      measure(
        'eigenvector',
        'eigenvector centrality',
        'As high as the nodes tied with it are, without direction (Bonacich 1987); the largest is 1, components with weaker ties come to 0.',
        'is tied with those who are well connected',
      ),
      measure(
        'pageRank',
        'PageRank',
        'Where somebody would be who follows ties along their direction and now and then begins anywhere (Page et al. 1999); all together 1.',
        'is addressed by those who are much addressed',
      ),
    ],
  },
  {
    id: 'hubs',
    asks: 'Who is looked up to, and who points there?',
    says: 'Authorities are those to whom good hubs lead; hubs are those whose ties lead to good authorities.',
    misleads: 'One busy group may take all of both, while others of the network come to 0.',
    directedOnly: true,
    columns: [
      measure(
        'hub',
        'hub',
        'Its ties lead to good authorities (Kleinberg 1999); all together 1.',
        'points to those who are looked up to',
      ),
      measure(
        'authority',
        'authority',
        'Ties of good hubs lead to it (Kleinberg 1999); all together 1.',
        'is looked up to',
      ),
    ],
  },
  {
    id: 'core',
    asks: 'Who is in the thick of it?',
    says: 'How deep in the network a node stands: in a part where all have so many partners in that part.',
    misleads: 'It says how dense the surroundings are, not how important somebody is in them.',
    directedOnly: false,
    columns: [
      measure(
        'core',
        'core number',
        'The largest k for which it is in a part where each has k partners in that part (Seidman 1983); 0 and up.',
        'stands where the network is dense',
      ),
    ],
  },
  {
    id: 'circle',
    asks: 'Whose partners know each other?',
    says: 'Closed circles on one side, brokers between circles on the other.',
    misleads: 'With two or three partners chance decides; look at those with more.',
    directedOnly: false,
    twoMode: {
      not: 'In a two-mode network partners of a node are of one sort, and never tied: clustering is always 0.',
    },
    columns: [
      measure(
        'clustering',
        'local clustering',
        'Of all pairs of its partners, the share that is tied itself (Watts & Strogatz 1998); 0 to 1, none with fewer than two partners.',
        'has partners who know each other',
      ),
      measure(
        'constraint',
        'constraint',
        'How much its partners are one and the same circle, by weight (Burt 1992); low for brokers, above 1 in small closed circles, none for isolates.',
        'is held by one circle',
      ),
    ],
  },
  {
    id: 'holds-together',
    asks: 'What falls apart without whom?',
    says: 'Nodes without which others would lose the largest part of the network.',
    misleads: 'Whoever is tied by one message counts as cut off; ask for stronger ties to see what holds.',
    directedOnly: false,
    columns: [
      measure(
        'cutsOff',
        'cut off without it',
        'Nodes that would be parted from the largest rest of their component (cut nodes: Tarjan 1972, Hopcroft & Tarjan 1973); 0 for one that holds nothing together.',
        'holds others to the rest',
      ),
    ],
  },
  {
    id: 'answers',
    asks: 'Who talks with others, and who is only talked to?',
    says: 'How many of the partners of a node are tied with it both ways, and how much it gets for what it gives.',
    misleads: 'What one side says elsewhere, or was not collected, is missing.',
    directedOnly: true,
    twoMode: {
      not: 'In a two-mode network ties lead from one sort to the other, and nothing is ever answered.',
    },
    columns: [
      measure(
        'reciprocated',
        'reciprocated share',
        'Of all its partners, the share with ties both ways; 0 to 1, none for isolates.',
        'talks with its partners',
      ),
      measure(
        'receivedPerSent',
        'received per sent',
        'In-strength over out-strength; 0 and up, none where nothing was sent.',
        'gets more than it gives',
      ),
    ],
  },
  {
    id: 'between-groups',
    asks: 'Who connects communities, and who is loud in one alone?',
    says: 'Whether the partners of a node are in its own community or spread over many.',
    misleads: 'It stands and falls with the communities: other groups give other connectors.',
    directedOnly: false,
    columns: [
      measure(
        'participation',
        'participation',
        '1 minus the sum of the squared shares of its partners in each community (Guimerà & Amaral 2005); 0 to 1: 0 where all are in one, none for isolates.',
        'has partners in many communities',
      ),
      measure(
        'outwardness',
        'E-I index',
        'Partners in other communities minus those in its own, over all (Krackhardt & Stern 1988); 0 for as many, 1 for all outside, -1 for all inside, none for isolates.',
        'is tied out of its community',
      ),
      measure(
        'groupsTouched',
        'communities touched',
        'Different communities of its partners; 0 and up.',
        'touches many communities',
      ),
    ],
  },
  {
    id: 'two-mode',
    asks: 'Who is tied to much of the other sort, and who could be spared?',
    says: 'In a two-mode network: the share of the other sort to which a node is tied, and whether its partners meet elsewhere too.',
    misleads: 'A node with two partners is easily redundant; look at the degree beside it.',
    directedOnly: false,
    twoMode: { only: true },
    columns: [
      measure(
        'degreeBySort',
        'degree by sort',
        'Partners over all nodes of the other sort (Borgatti & Everett 1997); 0 to 1.',
        'is tied to much of the other sort',
      ),
      measure(
        'redundancy',
        'redundancy',
        'Of the pairs of its partners the share that is tied through another node too (Latapy, Magnien & Del Vecchio 2008); 0 to 1, none with fewer than two partners.',
        'could be spared: its partners meet elsewhere',
      ),
    ],
  },
];

/** The question of an id. */
export function questionOf(id: QuestionId): Question {
  return NODE_QUESTIONS.find((question) => question.id === id)!;
}

/** Names of all columns that answer questions. */
export const ANSWER_COLUMNS: readonly string[] = NODE_QUESTIONS.flatMap(({ columns }) =>
  columns.map(({ name }) => name),
);

/** Why a question makes no sense of a network; null where it does. */
export function whyNotAsked({ twoMode }: Question, isTwoMode: boolean): string | null {
  if (!twoMode) return null;
  if ('only' in twoMode) return isTwoMode ? null : 'It is asked of two-mode networks alone.';
  return isTwoMode ? twoMode.not : null;
}

/** Seconds for a million ties that are looked at: of a step of a search, and of one round of an iteration (measured, one core). */
const SEARCHED = 0.005;
const ROUND = 0.004;

/** About how many seconds an answer takes. @param ties without direction */
export function secondsFor(id: QuestionId, nodes: number, ties: number): number {
  const millions = (2 * ties + nodes) / 1e6;
  // Above this many steps start nodes are sampled.
  const searches = Math.min(nodes * millions, 2000);
  switch (id) {
    case 'basics':
    case 'close':
      return SEARCHED * searches;
    case 'bridges':
      return SEARCHED * (searches + 8 * Math.min(nodes * millions, 250));
    case 'well-connected':
    case 'hubs':
      return 200 * ROUND * millions;
    default:
      return 10 * ROUND * millions * Math.max(1, (2 * ties) / Math.max(nodes, 1) / 10);
  }
}

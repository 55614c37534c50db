import type { Reference } from '@pebble/contract';

type Name = readonly [family: string, given: string];
interface Article {
  readonly title?: string;
  readonly in: string;
  readonly volume?: string;
  readonly issue?: string;
  readonly page?: string;
}

/** A work as sentences cite it, and as reference managers know it (CSL-JSON). */
interface Work {
  readonly cited: string;
  readonly reference: Reference;
}

function idOf([[family]]: readonly Name[], year: number): string {
  return `${family
    .normalize('NFD')
    .replace(/[^A-Za-z]/g, '')
    .toLowerCase()}${year}`;
}

function begun(authors: readonly Name[], year: number): Pick<Reference, 'id' | 'author' | 'issued'> {
  return {
    id: idOf(authors, year),
    author: authors.map(([family, given]) => ({ family, given })),
    issued: { 'date-parts': [[year]] },
  };
}

function article(cited: string, authors: readonly Name[], year: number, of: Article): Work {
  const { in: journal, ...told } = of;
  return {
    cited,
    reference: { ...begun(authors, year), type: 'article-journal', 'container-title': journal, ...told },
  };
}

function book(cited: string, authors: readonly Name[], year: number, title: string, publisher: string): Work {
  return { cited, reference: { ...begun(authors, year), type: 'book', title, publisher } };
}

function paper(
  cited: string,
  authors: readonly Name[],
  year: number,
  { in: proceedings, ...told }: Article,
): Work {
  return {
    cited,
    reference: {
      ...begun(authors, year),
      type: 'paper-conference',
      'container-title': proceedings,
      ...told,
    },
  };
}

/** All works that sentences of steps and columns cite. Their bibliographic data are written from memory of the published works. */
export const WORKS: readonly Work[] = [
  article(
    'Blondel et al. 2008',
    [
      ['Blondel', 'Vincent D.'],
      ['Guillaume', 'Jean-Loup'],
      ['Lambiotte', 'Renaud'],
      ['Lefebvre', 'Etienne'],
    ],
    2008,
    {
      title: 'Fast unfolding of communities in large networks',
      in: 'Journal of Statistical Mechanics: Theory and Experiment',
      volume: '2008',
      issue: '10',
      page: 'P10008',
    },
  ),
  article(
    'Traag, Waltman & van Eck 2019',
    [
      ['Traag', 'V. A.'],
      ['Waltman', 'L.'],
      ['van Eck', 'N. J.'],
    ],
    2019,
    {
      title: 'From Louvain to Leiden: guaranteeing well-connected communities',
      in: 'Scientific Reports',
      volume: '9',
      page: '5233',
    },
  ),
  article(
    'Raghavan, Albert & Kumara 2007',
    [
      ['Raghavan', 'Usha Nandini'],
      ['Albert', 'Réka'],
      ['Kumara', 'Soundar'],
    ],
    2007,
    {
      title: 'Near linear time algorithm to detect community structures in large-scale networks',
      in: 'Physical Review E',
      volume: '76',
      issue: '3',
      page: '036106',
    },
  ),
  article('Tarjan 1972', [['Tarjan', 'Robert']], 1972, {
    title: 'Depth-first search and linear graph algorithms',
    in: 'SIAM Journal on Computing',
    volume: '1',
    issue: '2',
    page: '146-160',
  }),
  article(
    'Hopcroft & Tarjan 1973',
    [
      ['Hopcroft', 'John'],
      ['Tarjan', 'Robert'],
    ],
    1973,
    {
      title: 'Algorithm 447: efficient algorithms for graph manipulation',
      in: 'Communications of the ACM',
      volume: '16',
      issue: '6',
      page: '372-378',
    },
  ),
  article('Seidman 1983', [['Seidman', 'Stephen B.']], 1983, {
    title: 'Network structure and minimum degree',
    in: 'Social Networks',
    volume: '5',
    issue: '3',
    page: '269-287',
  }),
  article(
    'Leicht & Newman 2008',
    [
      ['Leicht', 'E. A.'],
      ['Newman', 'M. E. J.'],
    ],
    2008,
    {
      title: 'Community structure in directed networks',
      in: 'Physical Review Letters',
      volume: '100',
      issue: '11',
      page: '118703',
    },
  ),
  article('Brandes 2001', [['Brandes', 'Ulrik']], 2001, {
    title: 'A faster algorithm for betweenness centrality',
    in: 'The Journal of Mathematical Sociology',
    volume: '25',
    issue: '2',
    page: '163-177',
  }),
  article(
    'Brandes & Pich 2007',
    [
      ['Brandes', 'Ulrik'],
      ['Pich', 'Christian'],
    ],
    2007,
    {
      title: 'Centrality estimation in large networks',
      in: 'International Journal of Bifurcation and Chaos',
      volume: '17',
      issue: '7',
      page: '2303-2318',
    },
  ),
  article('Freeman 1979', [['Freeman', 'Linton C.']], 1979, {
    title: 'Centrality in social networks: conceptual clarification',
    in: 'Social Networks',
    volume: '1',
    issue: '3',
    page: '215-239',
  }),
  article('Newman 2001', [['Newman', 'M. E. J.']], 2001, {
    title: 'Scientific collaboration networks. II. Shortest paths, weighted networks, and centrality',
    in: 'Physical Review E',
    volume: '64',
    issue: '1',
    page: '016132',
  }),
  article('Kleinberg 1999', [['Kleinberg', 'Jon M.']], 1999, {
    title: 'Authoritative sources in a hyperlinked environment',
    in: 'Journal of the ACM',
    volume: '46',
    issue: '5',
    page: '604-632',
  }),
  {
    cited: 'Page et al. 1999',
    reference: {
      ...begun(
        [
          ['Page', 'Lawrence'],
          ['Brin', 'Sergey'],
          ['Motwani', 'Rajeev'],
          ['Winograd', 'Terry'],
        ],
        1999,
      ),
      type: 'report',
      title: 'The PageRank citation ranking: bringing order to the web',
      publisher: 'Stanford InfoLab',
    },
  },
  article('Bonacich 1987', [['Bonacich', 'Phillip']], 1987, {
    title: 'Power and centrality: a family of measures',
    in: 'American Journal of Sociology',
    volume: '92',
    issue: '5',
    page: '1170-1182',
  }),
  article(
    'Borgatti & Everett 1997',
    [
      ['Borgatti', 'Stephen P.'],
      ['Everett', 'Martin G.'],
    ],
    1997,
    {
      title: 'Network analysis of 2-mode data',
      in: 'Social Networks',
      volume: '19',
      issue: '3',
      page: '243-269',
    },
  ),
  article(
    'Latapy, Magnien & Del Vecchio 2008',
    [
      ['Latapy', 'Matthieu'],
      ['Magnien', 'Clémence'],
      ['Del Vecchio', 'Nathalie'],
    ],
    2008,
    {
      title: 'Basic notions for the analysis of large two-mode networks',
      in: 'Social Networks',
      volume: '30',
      issue: '1',
      page: '31-48',
    },
  ),
  book(
    'Wasserman & Faust 1994',
    [
      ['Wasserman', 'Stanley'],
      ['Faust', 'Katherine'],
    ],
    1994,
    'Social network analysis: methods and applications',
    'Cambridge University Press',
  ),
  article(
    'Boldi & Vigna 2014',
    [
      ['Boldi', 'Paolo'],
      ['Vigna', 'Sebastiano'],
    ],
    2014,
    {
      title: 'Axioms for centrality',
      in: 'Internet Mathematics',
      volume: '10',
      issue: '3-4',
      page: '222-262',
    },
  ),
  article(
    'Eppstein & Wang 2004',
    [
      ['Eppstein', 'David'],
      ['Wang', 'Joseph'],
    ],
    2004,
    {
      title: 'Fast approximation of centrality',
      in: 'Journal of Graph Algorithms and Applications',
      volume: '8',
      issue: '1',
      page: '39-45',
    },
  ),
  article(
    'Guimerà & Amaral 2005',
    [
      ['Guimerà', 'Roger'],
      ['Amaral', 'Luís A. Nunes'],
    ],
    2005,
    {
      title: 'Functional cartography of complex metabolic networks',
      in: 'Nature',
      volume: '433',
      page: '895-900',
    },
  ),
  article(
    'Krackhardt & Stern 1988',
    [
      ['Krackhardt', 'David'],
      ['Stern', 'Robert N.'],
    ],
    1988,
    {
      title: 'Informal networks and organizational crises: an experimental simulation',
      in: 'Social Psychology Quarterly',
      volume: '51',
      issue: '2',
      page: '123-140',
    },
  ),
  article(
    'Watts & Strogatz 1998',
    [
      ['Watts', 'Duncan J.'],
      ['Strogatz', 'Steven H.'],
    ],
    1998,
    {
      title: 'Collective dynamics of “small-world” networks',
      in: 'Nature',
      volume: '393',
      page: '440-442',
    },
  ),
  book(
    'Burt 1992',
    [['Burt', 'Ronald S.']],
    1992,
    'Structural holes: the social structure of competition',
    'Harvard University Press',
  ),
  article(
    'Serrano et al. 2009',
    [
      ['Serrano', 'M. Ángeles'],
      ['Boguñá', 'Marián'],
      ['Vespignani', 'Alessandro'],
    ],
    2009,
    {
      title: 'Extracting the multiscale backbone of complex weighted networks',
      in: 'Proceedings of the National Academy of Sciences',
      volume: '106',
      issue: '16',
      page: '6483-6488',
    },
  ),
  article(
    'Maslov & Sneppen 2002',
    [
      ['Maslov', 'Sergei'],
      ['Sneppen', 'Kim'],
    ],
    2002,
    {
      title: 'Specificity and stability in topology of protein networks',
      in: 'Science',
      volume: '296',
      page: '910-913',
    },
  ),
  paper('Nielsen 2011', [['Nielsen', 'Finn Årup']], 2011, {
    title: 'A new ANEW: evaluation of a word list for sentiment analysis in microblogs',
    in: 'Proceedings of the ESWC2011 Workshop on “Making Sense of Microposts”',
    page: '93-98',
  }),
  article(
    'Fruchterman & Reingold 1991',
    [
      ['Fruchterman', 'Thomas M. J.'],
      ['Reingold', 'Edward M.'],
    ],
    1991,
    {
      title: 'Graph drawing by force-directed placement',
      in: 'Software: Practice and Experience',
      volume: '21',
      issue: '11',
      page: '1129-1164',
    },
  ),
  article(
    'Davidson & Harel 1996',
    [
      ['Davidson', 'Ron'],
      ['Harel', 'David'],
    ],
    1996,
    {
      title: 'Drawing graphs nicely using simulated annealing',
      in: 'ACM Transactions on Graphics',
      volume: '15',
      issue: '4',
      page: '301-331',
    },
  ),
  article(
    'Sugiyama, Tagawa & Toda 1981',
    [
      ['Sugiyama', 'Kozo'],
      ['Tagawa', 'Shojiro'],
      ['Toda', 'Mitsuhiko'],
    ],
    1981,
    {
      title: 'Methods for visual understanding of hierarchical system structures',
      in: 'IEEE Transactions on Systems, Man, and Cybernetics',
      volume: '11',
      issue: '2',
      page: '109-125',
    },
  ),
  paper(
    'Gansner, Koren & North 2004',
    [
      ['Gansner', 'Emden R.'],
      ['Koren', 'Yehuda'],
      ['North', 'Stephen'],
    ],
    2004,
    { title: 'Graph drawing by stress majorization', in: 'Graph Drawing, GD 2004', page: '239-250' },
  ),
  article('Noack 2009', [['Noack', 'Andreas']], 2009, {
    title: 'Modularity clustering is force-directed layout',
    in: 'Physical Review E',
    volume: '79',
    issue: '2',
    page: '026102',
  }),
  // It is found by its journal and page.
  article(
    'Jacomy et al. 2014',
    [
      ['Jacomy', 'Mathieu'],
      ['Venturini', 'Tommaso'],
      ['Heymann', 'Sebastien'],
      ['Bastian', 'Mathieu'],
    ],
    2014,
    { in: 'PLoS ONE', volume: '9', issue: '6', page: 'e98679' },
  ),
  article('Dunning 1993', [['Dunning', 'Ted']], 1993, {
    title: 'Accurate methods for the statistics of surprise and coincidence',
    in: 'Computational Linguistics',
    volume: '19',
    issue: '1',
    page: '61-74',
  }),
  paper(
    'Rayson & Garside 2000',
    [
      ['Rayson', 'Paul'],
      ['Garside', 'Roger'],
    ],
    2000,
    {
      title: 'Comparing corpora using frequency profiling',
      in: 'Proceedings of the Workshop on Comparing Corpora',
      page: '1-6',
    },
  ),
  paper(
    'Greene, Doyle & Cunningham 2010',
    [
      ['Greene', 'Derek'],
      ['Doyle', 'Dónal'],
      ['Cunningham', 'Pádraig'],
    ],
    2010,
    {
      title: 'Tracking the evolution of communities in dynamic social networks',
      in: 'International Conference on Advances in Social Networks Analysis and Mining',
      page: '176-183',
    },
  ),
];

import * as z from 'zod';

export const Growth = z.enum(['linear', 'square root', 'logarithm', 'steps']);
export type Growth = z.infer<typeof Growth>;

/** What a node must be (or, with `not`, must not be) to be shown. */
const NOT = { not: z.boolean().default(false) };
export const Condition = z.discriminatedUnion('what', [
  /** A number column within bounds, both included; null for no bound. A node without a value is outside. */
  z.object({
    what: z.literal('range'),
    column: z.string(),
    from: z.number().nullable().default(null),
    until: z.number().nullable().default(null),
    ...NOT,
  }),
  /** A category or text column with one of these values. */
  z.object({ what: z.literal('values'), column: z.string(), values: z.array(z.string()).max(500), ...NOT }),
  /** Its name contains one of the texts, apart by "|". */
  z.object({ what: z.literal('named'), text: z.string().max(500), ...NOT }),
  /** Its core number. */
  z.object({ what: z.literal('core'), atLeast: z.int().min(1).max(100_000), ...NOT }),
  /** In one of the largest components. */
  z.object({ what: z.literal('components'), largest: z.int().min(1).max(100_000), ...NOT }),
  /** Not more steps away from chosen nodes, along ties, against them, or either way. */
  z.object({
    what: z.literal('near'),
    nodes: z.array(z.int().min(0)).max(10_000),
    steps: z.int().min(1).max(3),
    way: z.enum(['either', 'out', 'in']).default('either'),
    ...NOT,
  }),
  /** One of these nodes. */
  z.object({ what: z.literal('chosen'), nodes: z.array(z.int().min(0)).max(100_000), ...NOT }),
]);
export type Condition = z.infer<typeof Condition>;

export const NodeFilter = z.object({
  joined: z.enum(['and', 'or']).default('and'),
  conditions: z.array(Condition).max(20).default([]),
});
export type NodeFilter = z.infer<typeof NodeFilter>;

/** Which part of a network is shown. */
export const Shown = z.object({
  /** Only ties of at least this weight. */
  atLeast: z.number().min(0),
  /** Only ties that have a message from this moment on and before that one; milliseconds since 1970. */
  period: z.object({ from: z.number().nullable(), until: z.number().nullable() }).nullable().default(null),
  largestComponent: z.boolean(),
  isolates: z.boolean(),
  /** Only these communities, or null for all. */
  communities: z.array(z.int()).nullable(),
  where: NodeFilter.default({ joined: 'and', conditions: [] }),
  /** Whether what does not fit `where` is left out, or stays pale. */
  rest: z.enum(['hidden', 'pale']).default('hidden'),
});
export type Shown = z.infer<typeof Shown>;

export const wholeShown: Shown = {
  atLeast: 0,
  period: null,
  largestComponent: false,
  isolates: true,
  communities: null,
  where: { joined: 'and', conditions: [] },
  rest: 'hidden',
};

const colourCode = z.string().regex(/^#[0-9A-Fa-f]{6}$/, 'A colour is # and six digits.');

/** How numbers become colours: from little to much by three ramps, or from either side of a middle. */
export const Ramp = z.enum(['tide', 'thread', 'ink', 'two-sided']);
export type Ramp = z.infer<typeof Ramp>;

export const MapColour = z.object({
  column: z.string(),
  /** Colours given by hand, by the value of the category. */
  chosen: z.record(z.string(), colourCode).default({}),
  /** Categories that stand first in the legend, by their value, in this order; the others follow by their size. */
  order: z.array(z.string()).max(1000).default([]),
  /** So many of the largest categories have a colour of their own. */
  most: z.int().min(1).max(16).default(8),
  ramp: Ramp.default('tide'),
  reversed: z.boolean().default(false),
  /** Whether categories have colours, or greys for print without colour. */
  palette: z.enum(['colours', 'greys']).default('colours'),
  /** Where a two-sided ramp has its middle. */
  middle: z.number().default(0),
  /** How nodes are shown of which it is not sure enough what they are. */
  unsure: z
    .object({ column: z.string(), below: z.number().min(0).max(1), how: z.enum(['pale', 'uncoloured']) })
    .nullable()
    .default(null),
});
export type MapColour = z.infer<typeof MapColour>;

/** The shapes of nodes, in the order in which categories get them. */
export const NodeShape = z.enum(['circle', 'square', 'diamond', 'triangle', 'hexagon', 'cross']);
export type NodeShape = z.infer<typeof NodeShape>;

/** Round which nodes there is a dark rim: thicker the higher a number is, or round those that have one value of a category. */
export const Rim = z.object({
  column: z.string(),
  /** Of a category; null for a number. */
  value: z.string().nullable(),
});
export type Rim = z.infer<typeof Rim>;

/** How ties run: bent, straight, or drawn together, by the groups of their ends or freely with those that run alike. */
export const TieForm = z.enum(['bent', 'straight', 'bundled', 'bundled freely']);
export type TieForm = z.infer<typeof TieForm>;

/** Words of one's own beside a node or a tie, with a line that leads to it. */
export const Note = z.object({
  text: z.string().trim().min(1).max(300),
  at: z.discriminatedUnion('what', [
    z.object({ what: z.literal('node'), node: z.int().min(0) }),
    z.object({ what: z.literal('tie'), source: z.int().min(0), target: z.int().min(0) }),
  ]),
  /** From the place that it speaks of to the middle of the note, in units of the map. */
  dx: z.number(),
  dy: z.number(),
});
export type Note = z.infer<typeof Note>;

/** A thick soft line that a hand drew round or over nodes. */
export const Stroke = z.object({
  title: z.string().max(100),
  /** Some words below the title. */
  note: z.string().max(300).optional(),
  /** In units of the map. */
  width: z.number().positive().max(10_000),
  /** Each by the node near which it lies, and how far from its middle, in units of the map. */
  points: z
    .array(z.object({ near: z.int().min(0), dx: z.number(), dy: z.number() }))
    .min(1)
    .max(400),
});
export type Stroke = z.infer<typeof Stroke>;

/** What a legend can explain, in the order in which it does. */
export const LegendPart = z.enum(['colour', 'shape', 'rim', 'size', 'ties', 'width', 'outlines']);
export type LegendPart = z.infer<typeof LegendPart>;

export const LegendCorner = z.enum(['lower left', 'upper left', 'lower right', 'upper right']);
export type LegendCorner = z.infer<typeof LegendCorner>;

export const Legend = z.object({
  corner: LegendCorner.default('lower left'),
  /** Parts that are left out. */
  without: z.array(LegendPart).default([]),
  /** Headings in words of one's own, by part. */
  headings: z.partialRecord(LegendPart, z.string().max(100)).default({}),
  /** Names of groups in words of one's own, by the value of the category. */
  names: z.record(z.string(), z.string().max(100)).default({}),
});
export type Legend = z.infer<typeof Legend>;

/** Everything a map shows apart from the positions: the caption is its sentence. */
export const MapDescription = z.object({
  size: z.object({
    column: z.string(),
    growth: Growth,
    /** Radius in pixels at scale 1. */
    smallest: z.number().min(0.5).max(60),
    largest: z.number().min(1).max(120),
    /** Share of the nodes with the highest values that all have the largest size. */
    cut: z.number().min(0).max(0.2).default(0),
  }),
  colour: MapColour,
  shape: z
    .object({
      column: z.string().nullable(),
      /** Whether there is a pie inside each node of the groups that its ties lead to. */
      pies: z.boolean().default(false),
      /** What is written inside of nodes: "initials", or the first signs of a text column; null for nothing. */
      letters: z.string().nullable().default(null),
      /** Whether nodes that have a picture of their own show it. */
      pictures: z.boolean().default(false),
      rim: Rim.nullable().default(null),
    })
    .default({ column: null, pies: false, letters: null, pictures: false, rim: null }),
  names: z.object({
    count: z.int().min(0).max(2000),
    column: z.string(),
    /** Whether the two largest nodes of each group that has a colour, and the largest of all, are named too. */
    also: z.boolean().default(true),
    /** Height of the letters in pixels at scale 1. */
    fontSize: z.number().min(6).max(48),
    face: z.enum(['sans', 'serif']).default('sans'),
    /** Which names are bold: the first in rank, all, or none. */
    bold: z.enum(['first', 'all', 'none']).default('first'),
    /** Whether letters grow with the size of the node. */
    grow: z.boolean().default(false),
    length: z.enum(['full', 'short', 'two lines']).default('full'),
    /** In ink, or in the colour of the node made darker. */
    ink: z.enum(['ink', 'node']).default('ink'),
    /** What parts names from ties behind them. */
    behind: z.enum(['halo', 'box', 'nothing']).default('halo'),
    /** What nodes must be to be named. */
    where: NodeFilter.default({ joined: 'and', conditions: [] }),
    /** Names that were moved by hand: from the middle of the node to the middle of the name, in units of the map. */
    placed: z
      .array(z.object({ node: z.int().min(0), dx: z.number(), dy: z.number() }))
      .max(2000)
      .default([]),
  }),
  ties: z.object({
    /** Of the source, of the target, of both mixed, of what kind the tie is, by a number that it has, or none. */
    colour: z.enum(['by community', 'by target', 'mixed', 'by kind', 'by number', 'neutral']),
    /** Which number ties are coloured by, where they are, and by which ramp. */
    number: z.object({ column: z.string(), ramp: Ramp }).default({ column: 'weight', ramp: 'thread' }),
    arrows: z.boolean(),
    /** Whether weaker ties are paler. */
    opacity: z.enum(['even', 'by weight']).default('even'),
    /** Which ties are drawn: all, or only those of what is selected. */
    shown: z.enum(['all', 'of selection']).default('all'),
    /** Whether the two directions between a pair lie beside each other where ties are straight. */
    apart: z.boolean().default(true),
    /** What is written on ties, and on how many of the strongest: a column, "kinds" for the messages by kind, null for nothing. */
    names: z
      .object({ column: z.string().nullable(), count: z.int().min(0).max(500) })
      .default({ column: null, count: 20 }),
    form: TieForm.default('bent'),
    /** How tightly bundled ties are drawn together, 0 to 1. */
    tightness: z.number().min(0).max(1).default(0.75),
    width: z.enum(['by weight', 'even']).default('by weight'),
    /** How strongly ties are drawn beside what is usual. */
    strength: z.number().min(0.1).max(4).default(1),
  }),
  regions: z
    .object({
      /** The column whose groups are outlined; null for none. */
      column: z.string().nullable(),
      /** Nodes that a group must have to be outlined. */
      least: z.int().min(2).max(100_000),
      /** One line round all of a group, lines round where it lies densely, or its title alone. */
      form: z.enum(['whole', 'dense', 'title']).default('whole'),
      /** Titles by the value of the category. */
      titles: z.record(z.string(), z.string().max(100)),
      /** Some words below the title, by the value of the category. */
      notes: z.record(z.string(), z.string().max(300)).default({}),
      /** Outlines round chosen nodes. */
      own: z
        .array(
          z.object({
            title: z.string().max(100),
            note: z.string().max(300).optional(),
            nodes: z.array(z.int().min(0)).min(1).max(100_000),
          }),
        )
        .max(40)
        .default([]),
      /** Lines drawn by hand. */
      strokes: z.array(Stroke).max(40).default([]),
    })
    .default({ column: null, least: 10, form: 'whole', titles: {}, notes: {}, own: [], strokes: [] }),
  notes: z.array(Note).max(60).default([]),
  legend: Legend.prefault({}),
  /** Nodes that stay where they are when the map is arranged again. */
  held: z.array(z.int().min(0)).max(100_000).default([]),
  show: Shown,
});
export type MapDescription = z.infer<typeof MapDescription>;

export const defaultMap: MapDescription = {
  size: { column: 'inDegree', growth: 'square root', smallest: 3, largest: 15, cut: 0 },
  colour: {
    column: 'community',
    chosen: {},
    order: [],
    most: 8,
    ramp: 'tide',
    reversed: false,
    palette: 'colours',
    middle: 0,
    unsure: null,
  },
  shape: { column: null, pies: false, letters: null, pictures: false, rim: null },
  names: {
    count: 25,
    column: 'betweenness',
    also: true,
    fontSize: 12,
    face: 'sans',
    bold: 'first',
    grow: false,
    length: 'full',
    ink: 'ink',
    behind: 'halo',
    where: { joined: 'and', conditions: [] },
    placed: [],
  },
  ties: {
    colour: 'by community',
    number: { column: 'weight', ramp: 'thread' },
    arrows: true,
    opacity: 'even',
    shown: 'all',
    apart: true,
    names: { column: null, count: 20 },
    form: 'bent',
    tightness: 0.75,
    width: 'by weight',
    strength: 1,
  },
  regions: { column: null, least: 10, form: 'whole', titles: {}, notes: {}, own: [], strokes: [] },
  notes: [],
  legend: { corner: 'lower left', without: [], headings: {}, names: {} },
  held: [],
  show: wholeShown,
};

/** How a map is drawn, without what it says: to be kept by a name and put on other maps. */
const shape = MapDescription.shape;
export const Look = z.object({
  size: shape.size.omit({ column: true }),
  colour: MapColour.pick({ most: true, ramp: true, reversed: true, palette: true }),
  names: shape.names.omit({ column: true, placed: true, where: true }),
  ties: shape.ties,
  /** Whether groups are outlined. */
  outlined: z.boolean(),
});
export type Look = z.infer<typeof Look>;
export const KeptLook = z.object({ name: z.string(), look: Look });
export type KeptLook = z.infer<typeof KeptLook>;
export const KeptLookList = z.array(KeptLook);

/** The arrangements. */
export const LayoutMethod = z.enum([
  'attraction',
  'islands',
  'rings',
  'circle',
  'columns',
  'grid',
  'axes',
  'stress',
  'springs',
  'few-crossings',
  'round-one',
  'given',
]);
export type LayoutMethod = z.infer<typeof LayoutMethod>;

export const LayoutSettings = z.object({
  method: LayoutMethod.default('attraction'),
  /** What rings, a grid, islands or the x of axes go by; null for what suits the network. */
  column: z.string().nullable().default(null),
  /** What the y of axes goes by. */
  other: z.string().nullable().default(null),
  seed: z.int().min(0).max(0xffffffff).default(1),
  /** Whether attraction begins anew or goes on from where the nodes are. */
  begin: z.enum(['anew', 'as it is']).default('anew'),
  /** The node in the middle of an arrangement round one; null for the one with most ties. */
  centre: z.int().min(0).nullable().default(null),
  /** Iterations at most; the layout stops by itself before when it has come to rest. */
  iterations: z.int().min(1).max(10_000).default(600),
  gravity: z.number().min(0).max(100).default(1),
  /** How strongly nodes push each other away. */
  repulsion: z.number().min(0.01).max(1000).default(10),
  /** How far communities are pulled apart: attraction grows like the distance, like its root, or not at all. */
  apart: z.enum(['little', 'usual', 'far']).default('usual'),
  /** How much the weight of a tie pulls: nothing, like its root, or wholly. */
  weights: z.enum(['none', 'root', 'whole']).default('root'),
  /** Whether nodes with many ties are drawn to the middle, or pushed to the rim. */
  hubs: z.enum(['usual', 'middle', 'rim']).default('usual'),
  /** Whether overlapping nodes are moved apart. */
  separate: z.boolean().default(true),
  /** Whether the picture may be turned so that it fills the page. */
  turn: z.boolean().default(true),
  /** Where nodes without ties go: in a band below, or among the others. */
  isolates: z.enum(['below', 'among']).default('below'),
  /** Whether nodes that were moved by hand stay where they are. */
  keepMoved: z.boolean().default(false),
});
export type LayoutSettings = z.infer<typeof LayoutSettings>;

export const SavedMap = z.object({
  network: z.string(),
  description: MapDescription,
  layout: LayoutSettings.nullable(),
  iterations: z.int().nullable(),
  /** Nodes that were moved by hand since the layout. */
  moved: z.int(),
  hasPositions: z.boolean(),
});
export type SavedMap = z.infer<typeof SavedMap>;

/** A map made small: its nodes in a box, as whole numbers, with sizes and colours. */
export const SmallPicture = z.object({
  width: z.number(),
  height: z.number(),
  colours: z.array(z.string()),
  x: z.array(z.number()),
  y: z.array(z.number()),
  radius: z.array(z.number()),
  /** Place of each node's colour among the colours. */
  colour: z.array(z.int()),
});
export type SmallPicture = z.infer<typeof SmallPicture>;

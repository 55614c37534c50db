import * as z from 'zod';
import { AudienceQuestion } from './audiences';
import { CollectPlan, CollectRun, Service } from './collect';
import { DataExport } from './dataExport';
import { FileName, NodeTable, ImportMapping } from './gather';
import { GroupingSettings } from './groups';
import { MessageFilter, MessageLanguage, Scorer } from './message';
import { LayoutSettings, Look, MapDescription, Shown } from './map';
import { DoubtMeasure, QuestionId, QuestionSettings } from './measures';
import { MeasureSettings, NetworkChange, NetworkExport } from './network';
import { FIGURE_FORMATS, FigureQuery } from './figure';
import { pageOf } from './page';
import { AgreementSettings, Coder, EditedCode, MOST_CODES, NewSample } from './coding';
import { Allowed, Naming } from './people';
import { PackageQuery } from './package';
import { REPORT_FORMATS, ReportQuery } from './report';
import { SharedPageQuery } from './sharedPage';
import { PlateMap, PlateNote, PlateTitle } from './plates';
import { FollowSettings } from './following';
import { NewMoment } from './moments';
import { GroupNotes, PortraitFormat, PortraitSettings } from './portraits';
import { Name, StudyName } from './study';
import { NewDecision, RuleField, TidyKind, TidySort } from './tidy';
import { SliceBy, Weave } from './weave';

const groupingName = z.string().trim().min(1, 'Give the groups a name.').max(60);

/** The parameters of every kind of step, by kind. */
export const stepParameters = {
  'create-study': z.object({ name: StudyName }),
  'rename-study': z.object({ name: StudyName, before: z.string() }),
  'delete-study': z.object({}),
  'restore-study': z.object({}),
  'duplicate-study': z.object({ name: StudyName }),
  'save-study': z.object({}),
  'archive-study': z.object({}),
  /** In a study that is made for it; the file was saved by `save-study` or `archive-study`. */
  'open-study': z.object({ upload: z.string(), file: FileName }),
  'import-source': z.object({
    upload: z.string(),
    file: FileName,
    name: Name,
    reading: ImportMapping,
    /** Further files of the same shape, which become one source with the first; each message keeps the name of its file. */
    more: z.array(z.object({ upload: z.string(), file: FileName, reading: ImportMapping })).default([]),
  }),
  'collect-source': z.object({
    run: z.string(),
    name: Name,
    service: Service,
    plan: CollectPlan,
    /** What the run has to say about itself. */
    requests: z.int(),
    notes: z.array(z.string()),
  }),
  'import-network': z.object({
    upload: z.string(),
    file: FileName,
    name: Name,
    reading: ImportMapping,
    /** Where the nodes stand in a table of their own. */
    nodes: NodeTable.nullable().default(null),
  }),
  'add-node-details': z.object({
    network: z.string(),
    upload: z.string(),
    file: FileName,
    reading: ImportMapping,
  }),
  'add-groups': z.object({
    network: z.string(),
    upload: z.string(),
    file: FileName,
    /** Name of the new column of the nodes. */
    column: groupingName,
    reading: ImportMapping,
  }),
  'detect-languages': z.object({ source: z.int() }),
  'set-language': z.object({ message: z.int(), language: MessageLanguage.shape.code }),
  'mark-message': z.object({
    message: z.int(),
    starred: z.boolean(),
    note: z.string().trim().max(4000),
  }),
  'save-filter': z.object({
    name: z.string().trim().min(1, 'Give the filter a name.').max(100),
    filter: MessageFilter,
  }),
  'forget-filter': z.object({ id: z.int(), name: z.string() }),
  'remove-source': z.object({ source: z.int(), name: z.string() }),
  'restore-source': z.object({ source: z.int(), name: z.string() }),
  'find-names': z.object({
    /** By the library, or a list of one's own. */
    by: z.enum(['library', 'list']),
    names: z.array(z.string().trim().min(2).max(200)).max(5000).default([]),
    match: z.enum(['words', 'beginnings', 'patterns']).default('words'),
    /** Of the names of a list; the library tells it of each. */
    kind: TidyKind.default('unknown'),
  }),
  'score-messages': z.object({ scorer: Scorer }),
  tidy: z.object({ sort: TidySort, decisions: z.array(NewDecision).min(1).max(10_000) }),
  /** As many as one rule or table can have made. */
  'take-back-tidy': z.object({ decisions: z.array(z.int()).min(1).max(1_000_000) }),
  /** Gives a category to all things of which something contains one of the texts, apart by "|". */
  'categorise-by-rule': z.object({
    sort: TidySort,
    field: RuleField,
    contains: z.string().trim().min(1, 'Say what it contains.').max(300),
    category: z.string().trim().min(1, 'Give the category a name.').max(60),
    value: z.string().trim().min(1, 'Say which of the category they are.').max(200),
  }),
  /** Gives things the categories that a table names: its first column says which thing, each other one is a category. */
  'categorise-by-table': z.object({
    sort: TidySort,
    upload: z.string(),
    file: FileName,
    reading: ImportMapping,
  }),
  weave: z.object({ name: Name, weave: Weave }),
  /** A network for each part of the time, and one of the whole; they share one arrangement. */
  'weave-slices': z.object({
    name: Name,
    weave: Weave,
    by: SliceBy,
    event: z.number().nullable().default(null),
  }),
  /** Gives the slices of a network the places that its nodes have. */
  'share-arrangement': z.object({ network: z.string() }),
  'measure-network': z.object({ network: z.string(), settings: MeasureSettings }),
  /** Betweenness by itself, where it takes so long that the map does not wait for it. */
  'measure-betweenness': z.object({ network: z.string(), seed: MeasureSettings.shape.seed }),
  /** Computes the measures that answer questions about the nodes; they become columns of these. */
  'answer-questions': z.object({
    network: z.string(),
    questions: z.array(QuestionId).min(1, 'Choose at least one question.'),
    settings: QuestionSettings,
    /** Of which part they are asked; null for the whole. What is found of a part stands in columns of their own. */
    shown: Shown.nullable().default(null),
  }),
  /** Computes what the whole network is like, beside random networks with the same degrees. */
  'describe-whole': z.object({
    network: z.string(),
    networks: z.int().min(0).max(1000).default(100),
    seed: z.int().min(0).max(0xffffffff).default(1),
  }),
  /** Puts the nodes of a network into groups, which are kept by name as a column beside others. */
  'group-nodes': z.object({
    network: z.string(),
    name: groupingName,
    settings: GroupingSettings,
  }),
  /** Makes a grouping of another one: groups renamed, put together under one name, or nodes put elsewhere. */
  regroup: z.object({
    network: z.string(),
    column: z.string(),
    name: groupingName,
    /** New names by old ones; groups with the same new name become one. */
    rename: z.record(z.string(), z.string().trim().max(100)).default({}),
    /** Nodes by their places, with the group to which they go. */
    move: z
      .array(z.object({ nodes: z.array(z.int().min(0)), group: z.string().trim().max(100) }))
      .default([]),
  }),
  /** Splits one group of a grouping by looking for groups within it. */
  'split-group': z.object({
    network: z.string(),
    column: z.string(),
    group: z.string(),
    name: groupingName,
    settings: GroupingSettings,
  }),
  /** What is known of the groups of a column: what they say, who stands how in them, when they were active, what ties them. */
  'portray-groups': z.object({ network: z.string(), column: z.string(), settings: PortraitSettings }),
  /** What the researcher writes about a group: its title, a memo, quotations. */
  'note-group': z.object({ network: z.string(), column: z.string(), group: z.string(), notes: GroupNotes }),
  /** How the groups of a column go on over the slices of a network; each line becomes a group of slices and whole. */
  'follow-groups': z.object({
    network: z.string(),
    column: z.string(),
    settings: FollowSettings.default(FollowSettings.parse({})),
  }),
  /** The codes as they are from now on; those that are no longer among them go with all that was coded by them. */
  'edit-codebook': z.object({ codes: z.array(EditedCode).max(MOST_CODES) }),
  /** Codes, or what coders gave messages, from a file as it is saved. */
  'import-codes': z.object({ upload: z.string(), file: FileName }),
  'draw-sample': NewSample,
  'forget-sample': z.object({ sample: z.int(), name: z.string() }),
  /** The codes that a coder gives a message; none of them is a decision too, null takes it back. */
  'code-message': z.object({
    message: z.int(),
    coder: Coder,
    codes: z.array(z.int()).max(MOST_CODES).nullable(),
  }),
  'measure-agreement': AgreementSettings.extend({ sample: z.int() }),
  /** The share of the messages behind each node and each tie that have a code, as columns. */
  'share-of-code': z.object({ network: z.string(), code: z.int() }),
  'mark-moment': NewMoment,
  'forget-moment': z.object({ id: z.int(), name: z.string() }),
  'export-portraits': z.object({
    network: z.string(),
    column: z.string(),
    groups: z.array(z.string()).min(1).max(200),
    format: PortraitFormat,
    allowed: Allowed,
  }),
  /** How many groups a method finds over a range of resolutions. */
  'scan-resolutions': z.object({
    network: z.string(),
    settings: GroupingSettings,
  }),
  /** What is left of a network without some of its nodes; the network stays as it is. */
  'test-removal': z.object({
    network: z.string(),
    nodes: z.array(z.int().min(0)).min(1, 'Choose at least one node.').max(1000),
    /** The column by whose highest values they were chosen; null for a choice by hand. */
    by: z.string().nullable().default(null),
  }),
  /** How far ranks by a measure depend on which messages there are; two columns say the best and the worst rank. */
  'doubt-ranks': z.object({
    network: z.string(),
    measure: DoubtMeasure,
    runs: z.int().min(20).max(1000).default(100),
    seed: z.int().min(0).max(0xffffffff).default(1),
  }),
  /** A column of one's own: a formula over the other columns of the nodes. */
  'compute-column': z.object({
    network: z.string(),
    name: z.string().trim().min(1, 'Give the column a name.').max(60),
    formula: z.string().trim().min(1, 'Write a formula.').max(2000),
  }),
  /** Gives chosen nodes a value of a category of one's own; an empty value takes them out, no nodes only make the category. */
  'mark-nodes': z.object({
    network: z.string(),
    nodes: z.array(z.int().min(0)).max(100_000),
    column: z.string().trim().min(1, 'Give the category a name.').max(60),
    value: z.string().trim().max(100),
  }),
  /** Gives the nodes of a network that are in an audience a value of a category of one's own. */
  'mark-audience': z.object({
    network: z.string(),
    audience: AudienceQuestion,
    column: z.string().trim().min(1, 'Give the category a name.').max(60),
    value: z.string().trim().min(1, 'Say what they are.').max(100),
  }),
  /** Makes a network of another one by changes that hands made; the other stays as it is. */
  'change-network': z.object({
    network: z.string(),
    name: z.string().trim().min(1, 'Give the network a name.').max(100),
    changes: z.array(NetworkChange).min(1, 'There is no change yet.').max(10_000),
    /** Why, in words of one's own. */
    why: z.string().trim().max(500).default(''),
  }),
  'rename-network': z.object({ network: z.string(), name: Name }),
  'delete-network': z.object({ network: z.string() }),
  'restore-network': z.object({ network: z.string() }),
  /** By its number: the logbook is not to say whom. */
  'forget-account': z.object({ account: z.int() }),
  /** Of what was deleted, or taken out, before. */
  'remove-for-good': z.object({
    networks: z.array(z.string()).max(1000).default([]),
    sources: z.array(z.int()).max(1000).default([]),
    plates: z.array(z.int()).max(1000).default([]),
  }),
  'arrange-map': z.object({
    network: z.string(),
    layout: LayoutSettings,
    /** Positions that the browser computed with the same code and seed; without them the server computes. */
    upload: z.string().nullable(),
    iterations: z.int().min(0).nullable(),
    moved: z.int().min(0),
  }),
  'keep-look': z.object({ name: z.string().trim().min(1, 'Give the look a name.').max(60), look: Look }),
  'forget-look': z.object({ name: z.string() }),
  /** Pictures for nodes, as JSON in an upload; those of the same names are replaced. */
  'add-pictures': z.object({ upload: z.string() }),
  'remove-pictures': z.object({}),
  /** Keeps the state of a map as a plate. */
  'keep-plate': PlateMap.extend({
    network: z.string(),
    title: PlateTitle,
    note: PlateNote.default(''),
    /** Where the nodes are, as little-endian 32-bit floats; null for where the map has them. */
    upload: z.string().nullable().default(null),
    /** The plate whose place this one takes; null for a new one. */
    plate: z.int().nullable().default(null),
  }),
  'name-plate': z.object({ plate: z.int(), title: PlateTitle, note: PlateNote }),
  'duplicate-plate': z.object({ plate: z.int(), title: PlateTitle }),
  /** A plate whose network has other values is from now on what it is with these. */
  'renew-plate': z.object({ plate: z.int(), title: z.string() }),
  /** In the order in which they are to stand; what is not named follows as it was. */
  'order-plates': z.object({ plates: z.array(z.int()).min(1).max(500) }),
  /** The plate that stands for the study; null for none. */
  'choose-cover': z.object({ plate: z.int().nullable() }),
  'delete-plate': z.object({ plate: z.int(), title: z.string() }),
  'restore-plate': z.object({ plate: z.int(), title: z.string() }),
  /** How people are called in all that is published; those who have no pseudonym yet get one. */
  'name-people': Naming,
  /** Nobody can say any more who has which pseudonym; later ones are others. */
  'forget-pseudonyms': z.object({}),
  'describe-map': z.object({ network: z.string(), description: MapDescription }),
  'export-figure': z.object({
    network: z.string(),
    format: z.enum(FIGURE_FORMATS),
    width: z.int().min(1).max(100_000),
    height: z.int().min(1).max(100_000),
    resolution: FigureQuery.shape.resolution,
    caption: z.string().max(10_000),
    /** The plates that are on it; none where it is the map as it is. */
    plates: z.array(z.int()).max(100).default([]),
    allowed: Allowed,
  }),
  /** The map as a page of its own. */
  'export-page': SharedPageQuery.extend({ network: z.string(), bytes: z.int().min(1), allowed: Allowed }),
  /** Maps with all that is told of them, as one document. */
  'export-report': ReportQuery.omit({ plates: true }).extend({
    /** The plates that it shows; none where it shows the map as it is. */
    plates: z.array(z.int()).max(100).default([]),
    format: z.enum(REPORT_FORMATS),
    allowed: Allowed,
  }),
  /** The network and its map for reuse, in a zip. */
  'export-package': PackageQuery.extend({ network: z.string(), files: z.int().min(1), allowed: Allowed }),
  /** A package becomes a network of the study, with its map and its plates. */
  'open-package': z.object({ upload: z.string(), file: FileName }),
  'export-network': z.object({ network: z.string(), format: NetworkExport, allowed: Allowed }),
  'export-data': DataExport,
  /** What a run of a routine gives, as files. */
  'export-run': z.object({ routineRun: z.int(), files: z.int().min(1), allowed: Allowed }),
} as const;

export type StepKind = keyof typeof stepParameters;
export type StepParameters<K extends StepKind> = z.infer<(typeof stepParameters)[K]>;
export const StepKind = z.enum(Object.keys(stepParameters) as [StepKind, ...StepKind[]]);

export const StepState = z.enum(['waiting', 'running', 'done', 'failed', 'cancelled', 'interrupted']);
export type StepState = z.infer<typeof StepState>;

/** One row of the logbook. */
export const Step = z.object({
  id: z.int(),
  study: z.string(),
  kind: StepKind,
  state: StepState,
  parameters: z.record(z.string(), z.unknown()),
  result: z.record(z.string(), z.unknown()).nullable(),
  /** The sentence for the methods text. */
  sentence: z.string(),
  error: z.string().nullable(),
  seed: z.int().nullable(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
  /** Milliseconds. */
  duration: z.int().nullable(),
  /** The run of a routine of which it is a part. */
  run: z.int().optional(),
});
export type Step = z.infer<typeof Step>;

export const StepRequest = z.object({ kind: StepKind, parameters: z.record(z.string(), z.unknown()) });
export type StepRequest = z.infer<typeof StepRequest>;

/** Progress of a running step; share is 0 to 1, null while unknown, as is how long it takes still. */
export const StepProgress = z.object({
  step: z.int(),
  study: z.string(),
  kind: StepKind,
  phase: z.string(),
  share: z.number().nullable(),
  remainingMs: z.number().nullable(),
});
export type StepProgress = z.infer<typeof StepProgress>;

/** What the event stream sends. */
export const StepEvent = z.discriminatedUnion('type', [
  z.object({ type: z.literal('progress'), progress: StepProgress }),
  z.object({ type: z.literal('step'), step: Step }),
  z.object({ type: z.literal('collecting'), run: CollectRun }),
  /** A run of a routine got further. */
  z.object({ type: z.literal('routine'), run: z.int() }),
  /** How far an estimate is that takes long, 0 to 1. */
  z.object({ type: z.literal('estimating'), share: z.number() }),
]);
export type StepEvent = z.infer<typeof StepEvent>;

/** The newest first. */
export const Logbook = pageOf('steps', Step);
export type Logbook = z.infer<typeof Logbook>;

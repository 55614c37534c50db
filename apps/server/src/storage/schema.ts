import type { Generated } from 'kysely';

/** The study itself: one row. */
export interface StudyTable {
  name: string;
  created_at: string;
  changed_at: string;
  deleted_at: string | null;
  /** When it was packed and closed. */
  archived_at: string | null;
}

export interface SourceTable {
  id: Generated<number>;
  step_id: number;
  name: string;
  format: string;
  /** JSON of the import report. */
  report: string;
  /** When it was taken out of the study, with its messages; null while it is in. */
  removed_at: string | null;
}

export interface AccountTable {
  id: Generated<number>;
  handle_key: string;
  handle: string;
  name: string | null;
}

/** Never changed after it is written, but for the author of the parent, filled in once the parent is there. */
export interface MessageTable {
  id: Generated<number>;
  source_id: number;
  key: string;
  author_id: number;
  time: number | null;
  kind: string;
  parent_key: string | null;
  parent_author_id: number | null;
  link: string | null;
  subject: string | null;
  text: string;
  /** The item under which it stands, by its key; filled in once the item or the parent is there. */
  item_key: string | null;
  /** JSON of numbers and attributes. */
  more: string | null;
}

/** A video, page or other thing that messages stand under. */
export interface ItemTable {
  id: Generated<number>;
  source_id: number;
  key: string;
  title: string;
  account_id: number | null;
  time: number | null;
  link: string | null;
  text: string;
  more: string | null;
}

/** Who follows whom, as each source says it. */
export interface FollowTable {
  followed_id: number;
  follower_id: number;
  source_id: number;
}

/** What a source tells of an account; of several sources the latest holds. */
export interface ProfileTable {
  account_id: number;
  source_id: number;
  /** JSON of the profile. */
  profile: string;
}

/**
 * Who is addressed by a message: one row for each pair of message and account, `kinds` a bit for each kind; where nobody is, one
 * row of the author itself with kinds 0. Author and time stand here too, so that weaving reads this table alone.
 */
export interface AddressTable {
  message_id: number;
  to_id: number;
  from_id: number;
  kinds: number;
  time: number | null;
}

export interface HashtagTable {
  id: Generated<number>;
  tag_key: string;
  tag: string;
}

export interface MessageHashtagTable {
  hashtag_id: number;
  message_id: number;
}

export interface MessageLanguageTable {
  message_id: number;
  language: string;
  how: string;
}

/** A star or a note of the researcher on a message. */
export interface MessageMarkTable {
  message_id: number;
  starred: number;
  note: string;
}

/** A small picture for the nodes of a name, in all networks of a study. */
export interface NodePictureTable {
  name: string;
  /** Its data address. */
  image: string;
}

export interface SavedFilterTable {
  id: Generated<number>;
  name: string;
  /** JSON of the filter. */
  filter: string;
}

/** A collecting run with the place up to which it has come. */
export interface CollectRunTable {
  id: string;
  name: string;
  /** JSON of the service, of the plan, of the counts, of the notes. */
  service: string;
  plan: string;
  counts: string;
  notes: string;
  state: string;
  /** JSON of the connector's place; null before the first request. */
  place: string | null;
  /** Bytes of the spool that belong to that place. */
  spool_bytes: number;
  share: number | null;
  wait_until: number | null;
  error: string | null;
  source_id: number | null;
  previous: string | null;
  /** The state of the service when all was read; the next run asks what changed since. */
  service_state: string | null;
  /** 1 when somebody ended it before its end. */
  ended_by_hand: number;
  created_at: string;
  ended_at: string | null;
}

export interface StepTable {
  id: Generated<number>;
  kind: string;
  state: string;
  parameters: string;
  result: string | null;
  sentence: string;
  error: string | null;
  seed: number | null;
  started_at: string;
  ended_at: string | null;
  duration: number | null;
  /** The run of a routine for which it was done, and which step of that it is. */
  run_id: number | null;
  run_part: string | null;
}

/** One time that a routine was run. */
export interface RoutineRunTable {
  id: Generated<number>;
  /** JSON, as are answers and reasons. */
  routine: string;
  answers: string;
  state: string;
  /** Why steps were not done that are not in the logbook, by their names. */
  stopped: string;
  fingerprint: string | null;
  /** Of one of several runs with other answers to one question: the first of them, and JSON of question and answer. */
  first_run: number | null;
  varied: string | null;
  /** The standing routine that began it. */
  standing: number | null;
  /** JSON of its files with their hashes, and the version of the application. */
  inputs: string;
  version: string;
  /** A hash of what the study had before; empty where it had nothing. */
  material: string;
  /** JSON of hashes of what came out, and of what came of making it again. */
  results: string | null;
  verified: string | null;
  started_at: string;
  ended_at: string | null;
}

/** A routine that runs by itself. */
export interface StandingRoutineTable {
  id: Generated<number>;
  /** JSON, as are answers and when it runs. */
  routine: string;
  answers: string;
  fires: string;
  is_on: number;
  /** The newest step for which it has run, or which was there before it. */
  seen_step: number;
  next_at: string | null;
  /** The collecting run after which it runs. */
  waits_for: string | null;
  last_run: number | null;
  note: string | null;
  created_at: string;
}

export interface NetworkTable {
  id: string;
  step_id: number;
  name: string;
  /** JSON of the weave; the text "null" for a network that came finished from a file. */
  weave: string;
  directed: number;
  /** JSON of the node columns that a file brought. */
  own_columns: string;
  /** JSON of the ids of the tidy decisions with which it was woven. */
  decisions: Generated<string>;
  /** JSON of the network of which it is a slice, and of which; null for one that is none. */
  slice: Generated<string | null>;
  /** JSON of the network that hands changed to make this one, and of what they did; null for one that was not changed. */
  changed: Generated<string | null>;
  /** JSON of what the whole is like; null until it was asked for. */
  whole: Generated<string | null>;
  /** JSON of how groupings were found, by the name of their column. */
  groupings: Generated<string>;
  /** Persons who were forgotten since it was woven: messages are gone that made it. */
  forgotten: Generated<number>;
  /** JSON of the package that brought it: its title, how it was woven where it came from, titles of its groups; null for others. */
  opened: Generated<string | null>;
  sentence: string;
  nodes: number;
  edges: number;
  messages: number;
  state: string;
  measures: string;
  created_at: string;
  deleted_at: string | null;
}

/** What was decided of a thing; decisions that were taken back stay, and are not applied. */
export interface TidyDecisionTable {
  id: Generated<number>;
  step_id: number;
  sort: string;
  key: string;
  /** JSON of the verdict. */
  verdict: string;
  taken_back: number;
}

/** What a scorer gave a message. */
export interface MessageScoreTable {
  message_id: number;
  scorer: string;
  value: number;
}

/** A name that was found in texts. */
export interface NameTable {
  id: Generated<number>;
  name_key: string;
  label: string;
  kind: string;
}

export interface MessageNameTable {
  name_id: number;
  message_id: number;
}

export interface MapTable {
  network_id: string;
  description: string;
  layout: string | null;
  iterations: number | null;
  moved: number;
  /** x and y of every node, interleaved 32-bit floats, little endian. */
  positions: Buffer | null;
}

/** How the groups of the slices of a network go on through time. */
export interface FollowingTable {
  network_id: string;
  step_id: number;
  /** JSON of what it was drawn from, and of all that is told. */
  drawn_from: string;
  body: string;
}

/** What a message can be said to be. */
export interface CodeTable {
  id: Generated<number>;
  place: number;
  name: string;
  code_set: string;
  definition: string;
  examples: string;
  colour: string;
}

/** Messages that are to be coded. */
export interface SampleTable {
  id: Generated<number>;
  step_id: number;
  name: string;
}

export interface SampleMessageTable {
  sample_id: number;
  place: number;
  message_id: number;
}

/** That a coder has decided about a message, also where none of the codes holds. */
export interface CodedMessageTable {
  message_id: number;
  coder: string;
}

export interface CodingTable extends CodedMessageTable {
  code_id: number;
}

/** A point in time that the researcher marks. */
export interface MomentTable {
  id: Generated<number>;
  /** Milliseconds since 1970. */
  time: number;
  name: string;
}

/** What the portraits of a grouping were made of. */
export interface PortraitSetTable {
  network_id: string;
  /** Name of the column. */
  grouping: string;
  step_id: number;
  /** JSON of the settings, of what they were drawn from, and of the network as a whole. */
  settings: string;
  drawn_from: string;
  whole: string;
}

/** What is known of a group. */
export interface PortraitTable {
  network_id: string;
  grouping: string;
  /** Its value in the column. */
  value: string;
  /** Among the groups, the largest first. */
  place: number;
  /** JSON of what a list says of it, and of all. */
  head: string;
  body: string;
}

/** A kept state of a map. */
export interface PlateTable {
  id: Generated<number>;
  place: number;
  network_id: string;
  step_id: number;
  kept_at: string;
  title: string;
  note: string;
  /** 1 for the one that stands for the study. */
  cover: number;
  /** JSON of a PlateMap. */
  map: string;
  /** JSON of what it showed. */
  drawn: string;
  positions: Buffer;
  deleted_at: string | null;
}

/** How people are called in what is published: one row, or none where nobody decided. */
export interface NamingTable {
  /** Of which pseudonyms are made, in base64. */
  secret: string;
  /** JSON of a Naming. */
  body: string;
}

/** Who is called what in what is published. */
export interface PseudonymTable {
  /** The key of the handle. */
  person: string;
  number: number;
  words: string;
}

/** What the researcher wrote about a group. */
export interface GroupNotesTable {
  network_id: string;
  grouping: string;
  value: string;
  title: string;
  memo: string;
  /** JSON of the numbers of messages. */
  quotations: string;
}

/** A step that follows another one by itself. */
export interface FollowUpTable {
  id: Generated<number>;
  kind: string;
  /** JSON. */
  parameters: string;
  /** How often it was begun. */
  beginnings: number;
}

/** What is to happen to a file, once the step is committed that wrote this down. */
export interface StagedFileTable {
  /** In the folder of the study. */
  place: string;
  /** 1 where a file waits beside its place, 0 where what is there is to go. */
  comes: number;
}

/** The tables of one study. */
export interface Database {
  study: StudyTable;
  source: SourceTable;
  account: AccountTable;
  message: MessageTable;
  address: AddressTable;
  hashtag: HashtagTable;
  message_hashtag: MessageHashtagTable;
  item: ItemTable;
  follow: FollowTable;
  profile: ProfileTable;
  message_language: MessageLanguageTable;
  message_mark: MessageMarkTable;
  saved_filter: SavedFilterTable;
  node_picture: NodePictureTable;
  collect_run: CollectRunTable;
  step: StepTable;
  follow_up: FollowUpTable;
  routine_run: RoutineRunTable;
  standing_routine: StandingRoutineTable;
  staged_file: StagedFileTable;
  network: NetworkTable;
  map: MapTable;
  portrait_set: PortraitSetTable;
  portrait: PortraitTable;
  group_notes: GroupNotesTable;
  following: FollowingTable;
  moment: MomentTable;
  plate: PlateTable;
  naming: NamingTable;
  pseudonym: PseudonymTable;
  code: CodeTable;
  sample: SampleTable;
  sample_message: SampleMessageTable;
  coded_message: CodedMessageTable;
  coding: CodingTable;
  tidy_decision: TidyDecisionTable;
  message_score: MessageScoreTable;
  name: NameTable;
  message_name: MessageNameTable;
  parked_account: AccountTable;
  parked_message: MessageTable;
  parked_address: AddressTable;
  parked_message_hashtag: MessageHashtagTable;
  parked_item: ItemTable;
  parked_follow: FollowTable;
  parked_profile: ProfileTable;
}

/** Tables of which the rows of sources that were taken out wait in another one, "parked_" before its name. */
export const PARKED = [
  'account',
  'message',
  'address',
  'message_hashtag',
  'item',
  'follow',
  'profile',
] as const;

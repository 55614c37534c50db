import type { Generated } from 'kysely';

/** What the list of studies says; the study's own database is what holds. */
export interface CatalogueStudyTable {
  id: string;
  name: string;
  created_at: string;
  changed_at: string;
  deleted_at: string | null;
  /** 1 for one that was packed and closed. */
  archived: number;
  messages: number;
  accounts: number;
  networks: number;
  latest_network: string | null;
}

/** A reading that was kept for files with the same columns. */
export interface SavedReadingTable {
  id: Generated<number>;
  name: string;
  /** The names of the columns, as JSON; files with the same are offered the reading. */
  columns: string;
  /** JSON of the reading. */
  reading: string;
}

export interface KeptLookTable {
  name: string;
  /** JSON of the look. */
  look: string;
}

/** A routine that was kept, for all studies. */
export interface RoutineTable {
  id: string;
  /** JSON of the routine. */
  routine: string;
  changed_at: string;
}

/** How long a step of a routine took on this machine. */
export interface PaceTable {
  id: Generated<number>;
  kind: string;
  /** Seconds. */
  expected: number;
  seconds: number;
}

/** The tables of what all studies share. */
export interface CatalogueDatabase {
  study: CatalogueStudyTable;
  saved_reading: SavedReadingTable;
  kept_look: KeptLookTable;
  routine: RoutineTable;
  pace: PaceTable;
}

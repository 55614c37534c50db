import { TwoModeMapping, type Preview, type ImportMapping } from '@pebble/contract';
import { followedByFileName } from '../follows';

/** Rows of a file that are shown before it is taken in. */
export const ROWS_SHOWN = 12;

/** A file to look at. */
export interface FileHead {
  readonly name: string;
  /** Its first bytes (some 256 KiB are enough). */
  readonly head: Uint8Array;
  /** Bytes of the whole file. */
  readonly size: number;
  /** All bytes, for formats that can only be looked at whole; throws UnreadableFile when they are too many. */
  whole(): Uint8Array;
}

/** Everything a preview says beside its reading. */
type Findings = Omit<Preview, 'file' | 'bytes' | 'reading' | 'reasons'>;

export function previewOf(
  file: FileHead,
  reading: ImportMapping,
  reasons: string[],
  findings: Partial<Findings>,
): Preview {
  return {
    file: file.name,
    bytes: file.size,
    reading,
    reasons,
    fixed: false,
    materials: [reading.material],
    sheets: [],
    nodeSheet: null,
    network: null,
    rows: [],
    lines: [],
    outcome: null,
    missing: [],
    problems: [],
    saved: [],
    ...findings,
  };
}

/** What a reading says beside the columns, where it was chosen. */
export function chosenMeaning(
  file: FileHead,
  chosen?: Partial<ImportMapping>,
): Pick<ImportMapping, 'followed' | 'twoMode'> {
  return {
    followed: chosen?.followed ?? followedByFileName(file.name),
    twoMode: TwoModeMapping.parse(chosen?.twoMode ?? {}),
  };
}

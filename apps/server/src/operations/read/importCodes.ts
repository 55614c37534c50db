import { existsSync, readFileSync } from 'node:fs';
import { CODE_COLOURS, Coder, EditedCode, MOST_CODES, type Code } from '@pebble/contract';
import { counted } from '@pebble/core';
import { CsvReader } from '@pebble/core/files';
import { StepRefused } from '../../errors/stepErrors';
import { uploadPath } from '../../files/places';
import { keepCodes, keepCoding, readCodes } from '../../storage/codings';
import type { Store } from '../../storage/open';
import type { StepDefinition } from '../step';

/** One line of a file, by the names of its columns. */
interface CodeRow {
  readonly line: number;
  readonly cells: Readonly<Record<string, string>>;
}

interface Imported extends Record<string, unknown> {
  /** Codes that are new, and those that were there by their name and have what the file says now. */
  readonly added: number;
  readonly changed: number;
  /** Messages that a coder was given codes for, and rows of messages that are not in the study. */
  readonly coded: number;
  readonly unknown: number;
}

/** Codes, or what coders gave messages, from a file in CSV or JSON Lines, with the columns that saved ones have. All of it, or nothing. */
export const importCodes: StepDefinition<'import-codes', Imported> = {
  kind: 'import-codes',
  async run({ store, files }, { upload, file }) {
    const path = uploadPath(store.folder, upload);
    if (!existsSync(path)) throw new StepRefused('The file did not arrive. Please choose it again.');
    const rows = rowsOf(file, readFileSync(path, 'utf8'));
    const first = rows.at(0);
    if (!first) throw new StepRefused(`“${file}” has no rows. Nothing was changed.`);
    const found =
      'coder' in first.cells ? await takeCodings(store, file, rows) : await takeCodes(store, file, rows);
    files.spend(upload);
    return found;
  },
  describe({ file }, result) {
    if (!result) return `Codes were to be taken from “${file}”.`;
    const { added, changed, coded, unknown } = result;
    if (coded + unknown === 0)
      return `From “${file}” ${counted(added, 'code')} ${added === 1 ? 'was' : 'were'} added and ${changed} changed.`;
    const left =
      unknown > 0
        ? `; ${counted(unknown, 'row')} of messages that are not in the study ${unknown === 1 ? 'was' : 'were'} left out`
        : '';
    return `From “${file}” what coders gave ${counted(coded, 'message')} was taken in${left}.`;
  },
};

function rowsOf(file: string, text: string): CodeRow[] {
  const plain = text.replace(/^\ufeff/, '');
  return plain.trimStart().startsWith('{') ? jsonRows(file, plain) : csvRows(file, plain);
}

function csvRows(file: string, text: string): CodeRow[] {
  let names: readonly string[] = [];
  const rows: CodeRow[] = [];
  const reader = new CsvReader(
    ',',
    {
      onRecord: ({ row, values }) =>
        rows.push({
          line: row,
          cells: Object.fromEntries(names.map((name, i) => [name, unguarded(values[i] ?? '')])),
        }),
      onSkip: (row, _field, reason) => {
        throw new StepRefused(`“${file}”, row ${row}: ${reason} Nothing was changed.`);
      },
    },
    (found) => (names = found.map((name) => name.trim().toLowerCase())),
  );
  reader.write(text);
  reader.end();
  return rows;
}

/** Saved cells that a spreadsheet would run begin with an apostrophe. */
function unguarded(cell: string): string {
  return cell.replace(/^'(?=[=+\-@\t\r])/, '');
}

function jsonRows(file: string, text: string): CodeRow[] {
  return text.split('\n').flatMap((line, i) => {
    if (line.trim() === '') return [];
    try {
      const value = JSON.parse(line) as Record<string, unknown>;
      const cells = Object.fromEntries(
        Object.entries(value).flatMap(([name, cell]) =>
          typeof cell === 'string' || typeof cell === 'number' ? [[name, String(cell)]] : [],
        ),
      );
      return [{ line: i + 1, cells }];
    } catch {
      throw new StepRefused(`“${file}”, line ${i + 1} is no JSON. Nothing was changed.`);
    }
  });
}

async function takeCodes(store: Store, file: string, rows: readonly CodeRow[]): Promise<Imported> {
  const codes: EditedCode[] = await readCodes(store);
  let [added, changed] = [0, 0];
  for (const { line, cells } of rows) {
    const at = codes.findIndex(
      ({ name }) => name.toLowerCase() === (cells['name'] ?? '').trim().toLowerCase(),
    );
    const before = codes.at(at);
    const known: Partial<EditedCode> = at >= 0 && before ? before : {};
    const checked = EditedCode.safeParse({
      colour: CODE_COLOURS[codes.length % CODE_COLOURS.length],
      ...known,
      ...Object.fromEntries(Object.entries(cells).filter(([name, cell]) => name !== 'id' && cell !== '')),
    });
    if (!checked.success) {
      const [{ path, message }] = checked.error.issues;
      throw new StepRefused(
        `“${file}”, row ${line}, ${String(path[0] ?? 'name')}: ${message} Nothing was changed.`,
      );
    }
    if (at >= 0) {
      codes[at] = checked.data;
      changed++;
    } else {
      codes.push(checked.data);
      added++;
    }
  }
  if (codes.length > MOST_CODES)
    throw new StepRefused(
      `That would be ${codes.length} codes; a codebook has at most ${MOST_CODES}. Nothing was changed.`,
    );
  await keepCodes(store, codes);
  return { added, changed, coded: 0, unknown: 0 };
}

/** Rows of one coder and one message belong together; one without a code says that none holds. */
async function takeCodings(store: Store, file: string, rows: readonly CodeRow[]): Promise<Imported> {
  const codes = new Map((await readCodes(store)).map((code: Code) => [code.name.toLowerCase(), code.id]));
  const idOf = store.raw.prepare('select id from message where key = ?').pluck();
  const given = new Map<string, { message: number; coder: string; codes: Set<number> }>();
  let unknown = 0;
  for (const { line, cells } of rows) {
    const coder = Coder.safeParse(cells['coder'] ?? '');
    if (!coder.success)
      throw new StepRefused(
        `“${file}”, row ${line}, coder: ${coder.error.issues[0].message} Nothing was changed.`,
      );
    const message = idOf.get(cells['message'] ?? '') as number | undefined;
    if (message === undefined) {
      unknown++;
      continue;
    }
    const name = (cells['code'] ?? '').trim();
    const code = codes.get(name.toLowerCase());
    if (name !== '' && code === undefined)
      throw new StepRefused(
        `“${file}”, row ${line}: the codebook has no code “${name}”. Take in the codes first; nothing was changed.`,
      );
    const key = `${message} ${coder.data}`;
    const own = given.get(key) ?? { message, coder: coder.data, codes: new Set<number>() };
    if (code !== undefined) own.codes.add(code);
    given.set(key, own);
  }
  for (const { message, coder, codes: all } of given.values())
    await keepCoding(store, message, coder, [...all]);
  return {
    added: 0,
    changed: 0,
    coded: new Set([...given.values()].map(({ message }) => message)).size,
    unknown,
  };
}

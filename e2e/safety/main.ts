import { parseArgs } from 'node:util';
import { attacks } from './attacks';
import { damage } from './damage';
import { PARAMETERS } from './everyStep';
import { killing } from './killing';
import { killingArchive } from './killingArchive';
import { killingRoutines } from './killingRoutines';
import { killingRuns } from './killingRuns';
import { readersBeside, soak } from './load';
import { oddFiles } from './oddFiles';

const PORT = Number(process.env['SAFETY_PORT'] ?? 4681);

const { values } = parseArgs({
  options: {
    /** Some steps, one file in seven, no load and no damage: for every run of the tests. */
    short: { type: 'boolean', default: false },
    only: { type: 'string' },
    rounds: { type: 'string', default: '2' },
    minutes: { type: 'string', default: '3' },
    kinds: { type: 'string' },
    match: { type: 'string', default: '' },
    /** The answers to odd files become those that are expected. */
    keep: { type: 'boolean', default: false },
  },
});
type Kind = keyof typeof PARAMETERS;
const SHORT: readonly Kind[] = ['import-source', 'weave', 'group-nodes', 'change-network', 'tidy'];

interface Part {
  readonly isShort: boolean;
  run(): Promise<{ row: string; faults: readonly string[] }>;
}

const PARTS: Readonly<Record<string, Part>> = {
  kills: {
    isShort: true,
    async run() {
      const all = Object.keys(PARAMETERS) as Kind[];
      const kinds = (values.kinds?.split(',') as Kind[] | undefined) ?? (values.short ? SHORT : all);
      const { kills, inTheMiddle, faults } = await killing(
        values.short ? 1 : Number(values.rounds),
        PORT,
        kinds,
        // All kinds take half an hour: what was found until then is seen.
        (kind, done, found) => console.log(`${kind}: ${done} kills, ${found.length} faults`, ...found),
      );
      return {
        row: `${kills} kills over ${kinds.length} kinds of step, ${inTheMiddle} while one ran`,
        faults,
      };
    },
  },
  archive: {
    isShort: true,
    async run() {
      const { kills, inTheMiddle, faults } = await killingArchive(
        values.short ? 1 : Number(values.rounds) * 5,
        PORT,
      );
      return {
        row: `${kills} kills on the way into the archive and out of it, ${inTheMiddle} in the middle`,
        faults,
      };
    },
  },
  collecting: {
    isShort: true,
    async run() {
      const { kills, inTheMiddle, faults } = await killingRuns(
        values.short ? 1 : Number(values.rounds) * 5,
        PORT,
      );
      return { row: `${kills} kills of collecting runs, ${inTheMiddle} before all was there`, faults };
    },
  },
  routines: {
    isShort: true,
    async run() {
      const { kills, inTheMiddle, faults } = await killingRoutines(
        values.short ? 1 : Number(values.rounds) * 5,
        PORT,
      );
      return {
        row: `${kills} kills of routines, by hand and by themselves, ${inTheMiddle} before all was done`,
        faults,
      };
    },
  },
  files: {
    isShort: true,
    async run() {
      const tried = await oddFiles(PORT, {
        every: values.short ? 7 : 1,
        keeps: values.keep,
        match: values.match,
      });
      const { files, taken, refused, slowest, memory, faults } = tried;
      return {
        row: `${files} odd files: ${taken} taken, ${refused} refused with a reason; the slowest ${slowest.seconds.toFixed(1)} s (${slowest.name}), at most ${memory.toFixed(0)} MB`,
        faults,
      };
    },
  },
  damage: {
    isShort: false,
    async run() {
      const { rounds, refusedStarts, answers, said, faults } = await damage(Number(values.rounds) * 10, PORT);
      return {
        row: `${rounds} damaged files: ${refusedStarts} starts refused in words, ${answers} answers, ${said} of them say what is wrong`,
        faults,
      };
    },
  },
  requests: {
    isShort: true,
    async run() {
      const { requests, faults } = await attacks(PORT);
      return { row: `${requests} requests that nobody should send`, faults };
    },
  },
  readers: {
    isShort: false,
    async run() {
      const { readers, reads, median, p95, longest, slowest, importSeconds, faults } =
        await readersBeside(PORT);
      return {
        row: `${readers} readers beside an import of 200,000 messages (${importSeconds.toFixed(0)} s): ${reads} answers, half within ${median.toFixed(0)} ms, 95 in 100 within ${p95.toFixed(0)} ms, all within ${longest.toFixed(0)} ms; the slowest ${slowest.join(', ')}`,
        faults,
      };
    },
  },
  soak: {
    isShort: false,
    async run() {
      const { minutes, requests, early, late, most, faults } = await soak(PORT, Number(values.minutes));
      return {
        row: `${minutes} minutes of mixed load, ${requests} requests: at most ${most.toFixed(0)} MB, ${early.toFixed(0)} MB in the second quarter, ${late.toFixed(0)} MB in the last`,
        faults,
      };
    },
  },
};

let failed = 0;
for (const [name, part] of Object.entries(PARTS)) {
  if (values.only ? values.only !== name : values.short && !part.isShort) continue;
  const begun = Date.now();
  const { row, faults } = await part.run();
  console.log(
    `| ${name} | ${row} | ${faults.length === 0 ? 'none' : faults.length} | ${((Date.now() - begun) / 1000).toFixed(0)} s |`,
  );
  for (const fault of faults) console.log(`  - ${fault}`);
  failed += faults.length;
}
console.log(`safety: ${failed} faults`);
process.exit(failed > 0 ? 1 : 0);

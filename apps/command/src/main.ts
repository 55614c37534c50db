import { copyFileSync } from 'node:fs';
import { Command } from 'commander';
import { NetworkExport, routineSchema, Weave } from '@pebble/contract';
import { READY_ROUTINES } from '@pebble/core';
import { FolderInUse, keptRoutines, savedPath } from '@pebble/server/engine';
import { readJson } from './answers';
import { EXIT, Refused } from './errors';
import { withEngine } from './opened';
import { needRoom, writeNetwork } from './outputs';
import { findRoutine, runRoutine } from './run';
import { findStudy, newStudy, openSaved, step, telling } from './studies';
import { tellingTo } from './telling';
import { verifyFolder } from './verify';

const told = tellingTo(process.stdout);
const several = (value: string, before: readonly string[]): string[] => [...before, value];

const ALLOW = 'why people who have pseudonyms may be found in what is written; it stands in the logbook';

const program = new Command('pebble')
  .description('Works on studies without the interface, by the same steps. Data folder: PEBBLE_DATA.')
  .showHelpAfterError()
  .exitOverride();

program
  .command('run')
  .description('Runs a routine on files, and writes what it gives into a folder.')
  .argument('<routine>', 'a JSON file, the id of a ready-made routine, or the name of a kept one')
  .option(
    '--in <file>',
    'a file; [name=]FILE for a certain question; can be given several times',
    several,
    [],
  )
  .option(
    '--set <name=value>',
    'an answer; parts of a list apart by "|"; can be given several times',
    several,
    [],
  )
  .requiredOption('--out <folder>', 'where results are written')
  .option(
    '--study <study>',
    'runs in this study of the data folder, by its id or name; without it in one that is gone afterwards',
  )
  .option('--replace', 'files of the same names are replaced', false)
  .option('--allow <reason>', ALLOW)
  .action(
    async (
      routine: string,
      options: { in: string[]; set: string[]; out: string; study?: string; replace: boolean; allow?: string },
    ) => {
      const [study, allow] = [options.study ?? null, options.allow ?? null];
      process.exitCode = await withEngine(study === null, (engine) =>
        runRoutine(engine, routine, { ...options, study, allow }, told),
      );
    },
  );

program
  .command('verify')
  .description('Makes a run again, from its record and its files, and compares what comes out byte by byte.')
  .argument('<folder>', 'where the run wrote its results')
  .option('--in <file>', 'a file that it had; can be given several times', several, [])
  .option('--allow <reason>', ALLOW)
  .action(async (folder: string, options: { in: string[]; allow?: string }) => {
    process.exitCode = await withEngine(true, (engine) =>
      verifyFolder(engine, folder, options.in, options.allow ?? null, told),
    );
  });

const routine = program.command('routine').description('Routines that can be run.');
routine
  .command('list')
  .description('All routines: ready-made ones, and those kept in the data folder.')
  .action(async () => {
    const kept = await withEngine(false, (engine) => keptRoutines(engine.studies.catalogue));
    for (const { id, routine: one, isReady } of [...kept, ...READY_ROUTINES])
      told.done('routine', { id, name: one.name, version: one.version, isReady }, `${id}  ${one.name}`);
  });
routine
  .command('show')
  .description('A routine as JSON, to be changed and run.')
  .argument('<routine>')
  .action(async (wanted: string) => {
    const isReady = READY_ROUTINES.some(({ id }) => id === wanted);
    const found = isReady
      ? await findRoutine(wanted, null)
      : await withEngine(false, (engine) => findRoutine(wanted, engine));
    process.stdout.write(`${JSON.stringify(found, null, 2)}\n`);
  });

routine
  .command('schema')
  .description('The form of a routine as JSON Schema (draft 2020-12).')
  .action(() => void process.stdout.write(`${JSON.stringify(routineSchema(), null, 2)}\n`));

const study = program.command('study').description('Studies of the data folder.');
study
  .command('list')
  .description('All studies.')
  .action(() =>
    withEngine(false, (engine) => {
      for (const { id, name, messages, networks } of engine.studies.list().studies)
        told.done(
          'study',
          { id, name, messages, networks },
          `${id}  ${name}  ${messages} messages, ${networks} networks`,
        );
      return Promise.resolve();
    }),
  );
study
  .command('new')
  .description('Begins a study.')
  .argument('<name>')
  .action((name: string) =>
    withEngine(false, async (engine) => {
      const id = await newStudy(engine, name);
      told.done('study', { id, name }, `${id}  ${name}`);
    }),
  );
study
  .command('export')
  .description('Saves a study as one file.')
  .argument('<study>', 'its id or name')
  .requiredOption('--out <file>')
  .option('--replace', 'a file of the same name is replaced', false)
  .action((wanted: string, options: { out: string; replace: boolean }) =>
    withEngine(false, async (engine) => {
      needRoom('.', [options.out], options.replace);
      const { id } = findStudy(engine, wanted);
      const stop = telling(engine, id, told);
      const { id: number } = await step(engine, id, 'save-study', {}).finally(stop);
      copyFileSync(savedPath(engine.studies.folderOf(id), number), options.out);
      told.done('file', { path: options.out }, `Saved as ${options.out}.`);
    }),
  );
study
  .command('import')
  .description('Opens a study that was saved as one file.')
  .argument('<file>')
  .action((file: string) =>
    withEngine(false, async (engine) => {
      const id = await openSaved(engine, file, told);
      const { name } = findStudy(engine, id);
      told.done('study', { id, name }, `${id}  ${name}`);
    }),
  );

program
  .command('weave')
  .description('Weaves a network of the messages of a study.')
  .argument('<study>', 'its id or name')
  .requiredOption('--recipe <file>', 'JSON of the recipe, as steps of the logbook have it at "weave"')
  .requiredOption('--name <name>', 'what the network is called')
  .action((wanted: string, { recipe, name }: { recipe: string; name: string }) =>
    withEngine(false, async (engine) => {
      const read = Weave.safeParse(readJson(recipe));
      if (!read.success) {
        const [{ path, message }] = read.error.issues;
        throw new Refused(`${recipe} is no recipe (${path.join(', ') || 'the whole'}: ${message}).`);
      }
      const { id } = findStudy(engine, wanted);
      const stop = telling(engine, id, told);
      const { result, sentence } = await step(engine, id, 'weave', { name, weave: read.data }).finally(stop);
      told.done('network', { ...result }, `${String(result?.['network'])}  ${sentence}`);
    }),
  );

program
  .command('export')
  .description('Saves a network of a study.')
  .argument('<study>', 'its id or name')
  .argument('<network>', 'its id or name')
  .requiredOption('--format <format>', NetworkExport.options.join(', '))
  .requiredOption('--out <file>')
  .option('--replace', 'a file of the same name is replaced', false)
  .option('--allow <reason>', ALLOW)
  .action((wanted: string, network: string, options: ExportOptions) =>
    withEngine(false, async (engine) => {
      const format = NetworkExport.safeParse(options.format);
      if (!format.success)
        throw new Refused(
          `There is no format “${options.format}”. There are ${NetworkExport.options.join(', ')}.`,
          EXIT.usage,
        );
      needRoom('.', [options.out], options.replace);
      const { id } = findStudy(engine, wanted);
      const { networks } = await engine.runner.read('networks', id, { offset: 0, limit: 1000 });
      const found = networks.find((one) => one.id === network || one.name === network);
      if (!found) throw new Refused(`There is no network “${network}” in this study.`);
      await writeNetwork(engine, found, format.data, options.out, options.allow ?? null);
      told.done('file', { path: options.out }, `Saved as ${options.out}.`);
    }),
  );

interface ExportOptions {
  readonly format: string;
  readonly out: string;
  readonly replace: boolean;
  readonly allow?: string;
}

try {
  await program.parseAsync();
} catch (error) {
  const { exitCode, code } = error as { exitCode?: number; code?: string };
  if (typeof code === 'string' && code.startsWith('commander.'))
    process.exitCode = exitCode === 0 ? EXIT.done : EXIT.usage;
  else if (error instanceof Refused || error instanceof FolderInUse) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = error instanceof Refused ? error.exit : EXIT.refused;
  } else throw error;
}

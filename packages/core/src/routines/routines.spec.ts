import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import {
  defaultMap,
  ImportMapping,
  LayoutSettings,
  Routine,
  routineSchema,
  StepKind,
  stepParameters,
  type Step,
  type StepKind as Kind,
} from '@pebble/contract';
import { boundStep } from './bind';
import { answerProblems, routineProblems } from './check';
import { onMessagesThere, withoutStep, withStepMoved } from './editing';
import { leadingTo, routineOf } from './fromLogbook';
import { routineParagraph } from './paragraph';
import { READY_ROUTINES } from './ready';
import { isReference, withLeaves } from './references';
import { askableValues, withAnswerFixed, withValueAsked } from './values';
import { restingOn } from './restingOn';
import { routineTrait } from './traits';

let number = 0;
const step = (kind: Kind, parameters: object, result: object = {}, state: Step['state'] = 'done'): Step => ({
  id: ++number,
  study: 's',
  kind,
  state,
  parameters: stepParameters[kind].parse(parameters),
  result: result as Record<string, unknown>,
  sentence: `${kind} was done.`,
  error: null,
  seed: null,
  startedAt: '',
  endedAt: null,
  duration: null,
});

const reading = ImportMapping.parse({
  format: 'csv',
  encoding: 'utf-8',
  delimiter: ',',
  dateForm: 'iso',
  columns: [
    { name: 'who', role: 'author' },
    { name: 'what', role: 'text' },
    { name: 'likes', role: 'number' },
  ],
});
const plate = {
  description: defaultMap,
  layout: null,
  iterations: null,
  moved: 0,
  view: null,
  selection: null,
};

/** A logbook with all that a plate rests on, and much on which it does not. */
function logbook(): Step[] {
  number = 0;
  const net = 'n-1';
  return [
    step('create-study', { name: 'Lamps' }),
    step('import-source', { upload: 'u1', file: 'a.csv', name: 'a.csv', reading }, { source: 1 }),
    step('import-source', { upload: 'u2', file: 'b.csv', name: 'b.csv', reading }, { source: 2 }),
    step('remove-source', { source: 2, name: 'b.csv' }),
    step('detect-languages', { source: 1 }),
    step(
      'tidy',
      { sort: 'hashtag', decisions: [{ key: 'a', verdict: { verdict: 'drop' } }] },
      { decisions: [1] },
    ),
    step(
      'tidy',
      { sort: 'hashtag', decisions: [{ key: 'b', verdict: { verdict: 'drop' } }] },
      { decisions: [2] },
    ),
    step('take-back-tidy', { decisions: [2] }),
    step(
      'tidy',
      { sort: 'account', decisions: [{ key: 'ann', verdict: { verdict: 'drop' } }] },
      { decisions: [3] },
    ),
    step('mark-message', { message: 5, starred: true, note: '' }),
    step(
      'weave',
      {
        name: 'Who answers whom',
        weave: {
          what: 'accounts',
          kinds: ['reply'],
          atLeast: 3,
          from: Date.UTC(2026, 2, 1),
          only: { name: 'by ann', filter: { author: 'ann' } },
          withoutSources: [{ id: 2, name: 'b.csv' }],
        },
      },
      { network: net },
    ),
    step('measure-network', { network: net, settings: {} }),
    step('portray-groups', { network: net, column: 'community', settings: {} }),
    step('group-nodes', { network: net, name: 'Finer', settings: { resolution: 2, seed: 9 } }),
    step('arrange-map', {
      network: net,
      layout: LayoutSettings.parse({ seed: 1 }),
      upload: 'u3',
      iterations: 9,
      moved: 0,
    }),
    step('arrange-map', {
      network: net,
      layout: LayoutSettings.parse({ seed: 9 }),
      upload: null,
      iterations: null,
      moved: 2,
    }),
    step('describe-map', { network: net, description: { ...defaultMap, held: [3] } }),
    step('keep-plate', { network: net, title: 'The first', ...plate }, { plate: 7 }),
    step('export-figure', {
      network: net,
      format: 'pdf',
      width: 10,
      height: 10,
      resolution: 300,
      caption: '',
      plates: [7],
      allowed: null,
    }),
    step('weave', { name: 'Other', weave: { what: 'follows' } }, { network: 'n-2' }, 'failed'),
  ];
}

describe('a routine made of a logbook', () => {
  const made = () => {
    const steps = logbook();
    return routineOf(steps, { name: 'Again', steps: leadingTo(steps, 7) });
  };

  it('has all that a plate rests on, each once and in its order', () => {
    expect(made().routine.steps.map(({ name, kind }) => `${kind} ${name}`)).toEqual([
      'import-source a-csv',
      'tidy tidy',
      'weave who-answers-whom',
      'group-nodes group-nodes',
      'arrange-map arrange-map',
      'keep-plate the-first',
    ]);
  });

  it('says what was left out, and why', () => {
    expect(made().left.map(({ step: one, why }) => `${one} ${why}`)).toEqual([
      '7 It was taken back.',
      '9 It names people. Give them by a table of categories, or decide anew.',
      '11 Without which sources were left out: other data do not have that.',
      '11 Without by or to which account messages are: other data do not have that.',
      '15 A later step of its kind took its place.',
      '16 Without 2 nodes moved by hand: other data do not have that.',
    ]);
  });

  it('asks for files, bounds, periods and seeds; the same seed is asked for once where it was the same', () => {
    const { questions, steps } = made().routine;
    expect(questions.map(({ name, kind }) => `${name} ${kind}`)).toEqual([
      'file file',
      'least number',
      'from day',
      'until day',
      'resolution number',
      'seed number',
    ]);
    expect(questions.find(({ name }) => name === 'from')).toMatchObject({ default: '2026-03-01' });
    expect(questions.find(({ name }) => name === 'seed')).toMatchObject({ default: 9 });
    expect(steps[3].parameters).toMatchObject({
      network: { made: 'who-answers-whom' },
      settings: { seed: { ask: 'seed' } },
    });
    expect(steps[4].parameters).toMatchObject({ layout: { seed: { ask: 'seed' } }, upload: null, moved: 0 });
  });

  it('holds nothing of the data: no ids, no accounts, no uploads', () => {
    const written = JSON.stringify(made().routine);
    for (const word of ['n-1', 'u1', 'u3', 'ann', '"b.csv"']) expect(written).not.toContain(word);
    expect(routineProblems(made().routine)).toEqual([]);
  });

  it('makes figures and tables that were saved to what it gives', () => {
    const steps = logbook();
    const { routine } = routineOf(steps, { name: 'Again', steps: new Set([18, 19]) });
    expect(routine.outputs).toEqual([{ what: 'figure', of: 'the-first', format: 'pdf' }]);
  });

  it('takes along what a chosen step rests on, and no more', () => {
    const steps = logbook();
    const { routine, along } = routineOf(steps, { name: 'Groups', steps: new Set([14]) });
    expect(routine.steps.map(({ kind }) => kind)).toEqual(['import-source', 'tidy', 'weave', 'group-nodes']);
    expect(along).toEqual([2, 6, 11]);
  });

  it('keeps each arrangement that a plate shows, and knows a duplicate by what it is of', () => {
    number = 0;
    const arranged = (seed: number): Step =>
      step('arrange-map', {
        network: 'n',
        layout: LayoutSettings.parse({ seed }),
        upload: null,
        iterations: null,
        moved: 0,
      });
    const steps = [
      step('weave', { name: 'N', weave: { what: 'follows' } }, { network: 'n' }),
      arranged(1),
      arranged(2),
      step('keep-plate', { network: 'n', title: 'A', ...plate }, { plate: 1 }),
      arranged(3),
      step('keep-plate', { network: 'n', title: 'B', ...plate }, { plate: 2 }),
      step('duplicate-plate', { plate: 1, title: 'A again' }, { plate: 3 }),
    ];
    const both = routineOf(steps, { name: 'Both', steps: new Set([4, 6]) });
    expect(both.routine.steps.map(({ kind }) => kind)).toEqual([
      'weave',
      'arrange-map',
      'keep-plate',
      'arrange-map',
      'keep-plate',
    ]);
    expect(both.left).toMatchObject([{ step: 2 }]);
    expect([...leadingTo(steps, 3)]).toEqual([4]);
    expect([...leadingTo(steps, 9)]).toEqual([]);
  });

  it('leaves out what rests on something that cannot go along', () => {
    number = 0;
    const steps = [
      step('open-package', { upload: 'u', file: 'p.zip' }, { network: 'n' }),
      step('group-nodes', { network: 'n', name: 'G', settings: {} }),
    ];
    const { routine, left } = routineOf(steps, { name: 'None', steps: new Set([2]) });
    expect(routine.steps).toEqual([]);
    expect(left[0].why).toContain('what is no longer there');
  });
});

describe('a step of a routine', () => {
  const routine = READY_ROUTINES.find(({ id }) => id === 'who-talks-to-whom')!.routine;
  const [takeIn, weave, , keep] = routine.steps;
  const file = [{ upload: 'u', file: 'a.csv', reading }];

  it('has answers and made things in place of its references', () => {
    const bound = boundStep(routine, weave, { file, tag: 'lamps', least: 4, from: '2026-03-01' }, {});
    expect(bound).toMatchObject({
      request: {
        kind: 'weave',
        parameters: {
          weave: {
            atLeast: 4,
            from: Date.UTC(2026, 2, 1),
            until: null,
            only: { name: 'lamps', filter: { hashtag: 'lamps' } },
          },
        },
      },
    });
    expect(boundStep(routine, weave, { file }, {})).toMatchObject({
      request: { parameters: { weave: { only: null } } },
    });
    expect(boundStep(routine, keep, { file }, { network: 'n' })).toMatchObject({
      request: { parameters: { network: 'n', description: defaultMap } },
    });
  });

  it('takes several files of one shape together, and refuses them where one is asked for', () => {
    const two = [...file, { upload: 'v', file: 'b.csv', reading }];
    expect(boundStep(routine, takeIn, { file: two }, {})).toMatchObject({
      request: { parameters: { upload: 'u', name: 'a.csv', more: [{ upload: 'v', file: 'b.csv' }] } },
    });
    const table = {
      name: 'categories',
      kind: 'categorise-by-table' as const,
      parameters: { sort: 'account', upload: { ask: 'file' }, file: { ask: 'file' } },
    };
    expect(boundStep(routine, table, { file: two }, {})).toMatchObject({
      problems: [{ where: 'categories', what: 'It takes one file, not 2 files.' }],
    });
  });

  it('reads columns by their names, whatever the form of the file', () => {
    const explicit = { ...takeIn, parameters: { ...takeIn.parameters, reading } };
    const own = {
      ...reading,
      format: 'tsv' as const,
      delimiter: '\t',
      columns: [
        { name: 'what', role: 'attribute' as const },
        { name: 'new', role: 'author' as const },
        { name: 'who', role: 'text' as const },
      ],
    };
    expect(
      boundStep(routine, explicit, { file: [{ upload: 'u', file: 'b.tsv', reading: own }] }, {}),
    ).toMatchObject({
      request: {
        parameters: {
          reading: {
            format: 'tsv',
            columns: [
              { name: 'what', role: 'text' },
              { name: 'new', role: 'attribute' },
              { name: 'who', role: 'author' },
            ],
          },
        },
      },
    });
  });
});

describe('a routine that is changed', () => {
  const routine = READY_ROUTINES.find(({ id }) => id === 'posts-in-step')!.routine;

  it('loses with a step all that rest on it, and what only they asked and gave', () => {
    const without = withoutStep(routine, 'network');
    expect(without.steps.map(({ name }) => name)).toEqual(['material']);
    expect(without.questions.map(({ name }) => name)).toEqual(['file']);
    expect(without.outputs).toEqual([]);
  });

  it('runs on the messages that a study has, without what takes in others', () => {
    const there = onMessagesThere(routine);
    expect(there.steps.map(({ name }) => name)).toEqual(['network', 'arrangement', 'plate']);
    expect(there.questions.some(({ kind }) => kind === 'file')).toBe(false);
    expect(there.outputs).toEqual(routine.outputs);
    expect(routineProblems(there)).toEqual([]);
  });

  it('says when a step comes before one on which it rests', () => {
    const moved = withStepMoved(routine, 'network', 1);
    expect(routineProblems(moved).map(({ what }) => what)).toContain(
      'It rests on “network”, which does not come before it.',
    );
    expect(withStepMoved(routine, 'material', -1)).toBe(routine);
  });
});

describe('what a routine asks', () => {
  const routine = READY_ROUTINES.find(({ id }) => id === 'posts-in-step')!.routine;
  const [, network, arrangement] = routine.steps;
  const valuesOf = (of: Routine, step: string) =>
    askableValues(
      of,
      of.steps.find(({ name }) => name === step)!,
    ).map(({ path, asked }) => [path.join('.'), asked]);

  it('is among the values of its steps, with those that could be asked for', () => {
    expect(valuesOf(routine, network.name)).toEqual([
      ['name', null],
      ['weave.what', null],
      ['weave.same', 'same'],
      ['weave.seconds', 'seconds'],
      ['weave.atLeast', 'least'],
      ['weave.from', 'from'],
      ['weave.until', 'until'],
    ]);
    // What another step makes, and files, are no values.
    expect(valuesOf(routine, arrangement.name).map(([path]) => path)).not.toContain('network');
    expect(valuesOf(routine, 'material')).toEqual([]);
  });

  it('can be fixed, and asked for again: the routine does the same', () => {
    let changed = routine;
    for (const name of ['same', 'seconds', 'from', 'seed']) changed = withAnswerFixed(changed, name);
    expect(changed.questions.map(({ name }) => name)).toEqual(['file', 'least', 'until']);
    expect(routineProblems(changed)).toEqual([]);
    const file = [{ upload: 'u', file: 'a.csv' }];
    const bound = (of: Routine) => of.steps.map((step) => boundStep(of, step, { file }, { network: 'n' }));
    expect(bound(changed)).toEqual(bound(routine));
    for (const field of ['same', 'seconds', 'from'])
      changed = withValueAsked(changed, network.name, ['weave', field]);
    changed = withValueAsked(changed, arrangement.name, ['layout', 'seed']);
    expect(changed.questions.slice(3)).toMatchObject([
      { name: 'same', kind: 'text', default: 'text' },
      { name: 'seconds', kind: 'number', default: 600, whole: true },
      { name: 'from', kind: 'day', default: null },
      { name: 'seed', kind: 'number', default: 1 },
    ]);
    expect(routineProblems(changed)).toEqual([]);
    expect(bound(changed)).toEqual(bound(routine));
  });

  it('stays where there is no such value or question, and a file is always asked for', () => {
    expect(withAnswerFixed(routine, 'file')).toBe(routine);
    expect(withAnswerFixed(routine, 'colour')).toBe(routine);
    expect(withValueAsked(routine, network.name, ['weave', 'least'])).toBe(routine);
    expect(withValueAsked(routine, network.name, ['weave', 'same'])).toBe(routine);
  });

  it('is a day where a period begins, and a name of its own where one is taken', () => {
    const day = Date.UTC(2026, 2, 1);
    const dated = Routine.parse({
      form: 1,
      name: 'Dated',
      steps: ['a', 'b'].map((name) => ({
        name,
        kind: 'weave',
        parameters: { name, weave: { what: 'accounts', kinds: ['reply'], from: day, without: [] } },
      })),
    });
    let asked = withValueAsked(dated, 'a', ['weave', 'from']);
    asked = withValueAsked(asked, 'b', ['weave', 'from']);
    asked = withValueAsked(asked, 'b', ['weave', 'kinds']);
    expect(asked.questions).toEqual([
      { name: 'from', ask: 'weave, from?', kind: 'day', default: '2026-03-01' },
      { name: 'from-2', ask: 'weave, from?', kind: 'day', default: '2026-03-01' },
      { name: 'kinds', ask: 'weave, kinds?', kind: 'list', default: ['reply'] },
    ]);
    expect(['from', 'from-2', 'kinds'].reduce(withAnswerFixed, asked)).toEqual(dated);
  });
});

describe('the steps on which a question bears', () => {
  const routine = Routine.parse({
    form: 1,
    name: 'Two networks',
    questions: [
      { name: 'least', kind: 'number', ask: 'Least?', default: 1 },
      { name: 'resolution', kind: 'number', ask: 'Resolution?', default: 1 },
      { name: 'names', kind: 'list', ask: 'Names?', default: [] },
    ],
    steps: [
      { name: 'names', kind: 'find-names', parameters: { by: 'list', names: { ask: 'names' } } },
      { name: 'one', kind: 'weave', parameters: { name: 'One', weave: { what: 'follows' } } },
      {
        name: 'two',
        kind: 'weave',
        parameters: {
          name: 'Two',
          weave: { what: 'accounts', kinds: ['reply'], atLeast: { ask: 'least' } },
        },
      },
      {
        name: 'groups',
        kind: 'group-nodes',
        parameters: {
          network: { made: 'one' },
          name: 'G',
          settings: { resolution: { ask: 'resolution' } },
        },
      },
      {
        name: 'portraits',
        kind: 'portray-groups',
        parameters: { network: { made: 'one' }, column: 'G', settings: {} },
      },
    ],
  });

  it.each([
    ['least', ['two']],
    // The network to which groups are added is woven for each answer.
    ['resolution', ['groups', 'one', 'portraits']],
    ['names', ['groups', 'names', 'one', 'portraits', 'two']],
    ['nothing', []],
  ])('%s', (question, steps) => {
    expect([...restingOn(routine, question)].sort()).toEqual(steps);
  });
});

describe('routines that come with the application', () => {
  const validate = new Ajv2020({ strict: false, validateFormats: false }).compile(routineSchema());

  it.each(READY_ROUTINES)('$id is right, has the published form, and says what it does', ({ routine }) => {
    expect(routineProblems(routine)).toEqual([]);
    // An independent validator of JSON Schema, draft 2020-12.
    expect([validate(routine), validate.errors]).toEqual([true, null]);
    const answers = Object.fromEntries(
      routine.questions
        .filter(({ kind }) => kind === 'file')
        .map(({ name }) => [name, [{ upload: 'u', file: 'my file.csv', reading }]]),
    );
    expect(answerProblems(routine, answers)).toEqual([]);
    expect(routineParagraph(routine, answers)).toMatch(
      /^It will take in my file\.csv, .*keep the plate “.+”\.$/,
    );
    expect(answerProblems(routine, {})[0].what).toBe('The answer is to be a file.');
  });

  it('has a form that is published as it is', () => {
    const published = readFileSync(join(__dirname, '../../../../docs/guide/routine.schema.json'), 'utf8');
    // Where this differs: npm run --silent pebble -- routine schema > docs/guide/routine.schema.json
    expect(JSON.parse(published)).toEqual(JSON.parse(JSON.stringify(routineSchema())));
  });

  it.each([
    ['a step without a kind', { steps: [{ name: 'a', parameters: {} }] }],
    ['a name with a space', { steps: [{ name: 'a b', kind: 'weave', parameters: {} }] }],
    ['something unknown', { colour: 'red' }],
    ['no steps', { steps: [] }],
  ])('has a form that refuses %s, by the schema as by the application', (_, part) => {
    const wrong = { ...READY_ROUTINES[0].routine, ...part };
    expect(validate(wrong)).toBe(false);
    expect(Routine.safeParse(wrong).success).toBe(false);
  });
});

describe('what stands in parameters', () => {
  it('is the same after a walk that changes nothing', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(withLeaves(value, (leaf) => leaf)).toEqual(value);
      }),
    );
  });

  it('is a reference where it is one word that stands for another, and nothing else', () => {
    expect([{ ask: 'a' }, { made: 'b' }].map(isReference)).toEqual([true, true]);
    expect([{ ask: 1 }, { ask: 'a', made: 'b' }, {}, ['ask', 'a'], null, 'ask'].some(isReference)).toBe(
      false,
    );
  });

  it('is known of every kind of step: it goes along, or there is a reason', () => {
    for (const kind of StepKind.options) {
      const trait = routineTrait(kind);
      expect('why' in trait ? trait.why : typeof trait.does).toMatch(/^(function|.+\.)$/);
    }
  });
});

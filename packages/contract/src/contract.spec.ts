import {
  COLUMN_ROLES,
  ColumnRole,
  defaultMap,
  FileFormat,
  ImportReport,
  LayoutSettings,
  MapDescription,
  Material,
  MeasureSettings,
  MessageQuery,
  NewMapping,
  ImportMapping,
  StepKind,
  stepParameters,
  StepRequest,
  StudyName,
  TableFormat,
  Weave,
} from './index';

const reading = {
  format: 'csv',
  encoding: 'utf-8',
  delimiter: ',',
  dateForm: 'iso',
  columns: [{ name: 'a', role: 'author' }],
};

describe('a reading', () => {
  it('is of messages, without a sheet and in UTC, where nothing else is said', () => {
    expect(ImportMapping.parse(reading)).toMatchObject({
      material: 'messages',
      sheet: null,
      zoneOffsetMinutes: 0,
    });
  });

  it.each([
    ['format', 'doc'],
    ['encoding', 'ascii'],
    ['delimiter', '::'],
    ['zoneOffsetMinutes', 900],
    ['columns', [{ name: 'a', role: 'hero' }]],
  ])('is refused with %s %j', (name, value) => {
    expect(ImportMapping.safeParse({ ...reading, [name]: value }).success).toBe(false);
  });

  it('can be kept under a name that says something', () => {
    expect(NewMapping.parse({ name: '  Export ', reading }).name).toBe('Export');
    expect(NewMapping.safeParse({ name: '   ', reading }).error?.issues[0]?.message).toBe(
      'Give the reading a name.',
    );
  });
});

describe('roles of columns', () => {
  it('are known for every material, and each is a role', () => {
    expect(Object.keys(COLUMN_ROLES).sort()).toEqual([...Material.options].sort());
    for (const role of Object.values(COLUMN_ROLES).flat()) expect(ColumnRole.options).toContain(role);
  });

  it('belong to some material, each of them', () => {
    const used = new Set(Object.values(COLUMN_ROLES).flat());
    for (const role of ColumnRole.options) expect(used.has(role)).toBe(true);
  });

  it('let every format of tables be a format of files', () => {
    for (const format of TableFormat.options) expect(FileFormat.options).toContain(format);
  });
});

describe('a weave', () => {
  it('counts every message at any time where nothing else is said', () => {
    expect(Weave.parse({ what: 'accounts', kinds: ['reply'] })).toEqual({
      what: 'accounts',
      kinds: ['reply'],
      from: null,
      until: null,
      only: null,
      except: null,
      withoutSources: [],
      atLeast: 1,
      repostMentions: true,
      selfTies: false,
      isolates: true,
      mostReceivers: null,
      share: 'whole',
      direction: 'kept',
      backbone: null,
      neighboursAtLeast: null,
      largestOnly: false,
    });
  });

  it.each([
    [{ kinds: [] }, 'Choose at least one way in which messages address accounts.'],
    [{ kinds: ['likes'] }, 'Invalid'],
    [{ kinds: ['reply'], atLeast: 0 }, 'Too small'],
    [{ kinds: ['reply'], atLeast: 1.5 }, 'expected int'],
    [{ what: 'everything' }, 'Invalid'],
    [{ what: 'in-step', seconds: 0 }, 'Too small'],
  ])('is refused as %j', (weave, why) => {
    expect(Weave.safeParse({ what: 'accounts', ...weave }).error?.issues[0]?.message).toContain(why);
  });
});

describe('settings', () => {
  it('have defaults that can be run', () => {
    expect(MeasureSettings.parse({})).toEqual({ resolution: 1, seed: 1, runs: 5 });
    expect(LayoutSettings.parse({})).toMatchObject({ seed: 1, gravity: 1 });
    expect(MapDescription.parse(defaultMap)).toEqual(defaultMap);
  });

  it('take seeds of 32 bits and no others', () => {
    for (const schema of [MeasureSettings, LayoutSettings]) {
      expect(schema.safeParse({ seed: 0xffffffff }).success).toBe(true);
      for (const seed of [-1, 2 ** 32, 0.5]) expect(schema.safeParse({ seed }).success).toBe(false);
    }
  });

  it('let no node of a map vanish', () => {
    const size = { ...defaultMap.size, smallest: 0 };
    expect(MapDescription.safeParse({ ...defaultMap, size }).success).toBe(false);
  });
});

describe('steps', () => {
  it('have parameters for each kind, and no kind beside', () => {
    expect([...StepKind.options].sort()).toEqual(Object.keys(stepParameters).sort());
    expect(StepRequest.safeParse({ kind: 'fly', parameters: {} }).success).toBe(false);
  });

  it('refuse parameters that are not theirs', () => {
    expect(stepParameters['remove-source'].safeParse({ source: 'one', name: 'x' }).success).toBe(false);
    expect(stepParameters['import-source'].safeParse({ upload: 'u', file: 'f', name: 'n' }).success).toBe(
      false,
    );
    expect(
      stepParameters['import-network'].safeParse({ upload: 'u', file: 'f', name: 'n', reading }).success,
    ).toBe(true);
  });
});

describe('a query for messages', () => {
  it('comes as text from an address, and is bounded', () => {
    expect(MessageQuery.parse({ offset: '20', from: '5', sample: '50', seed: '3' })).toEqual({
      offset: 20,
      limit: 50,
      from: 5,
      sample: 50,
      seed: 3,
    });
    for (const wrong of [
      { offset: '-1' },
      { limit: '201' },
      { sample: '0' },
      { sample: '20000' },
      { kind: 'song' },
    ])
      expect(MessageQuery.safeParse(wrong).success).toBe(false);
  });
});

it('names of studies are neither blank nor endless', () => {
  expect(StudyName.parse('  Lamps ')).toBe('Lamps');
  expect(StudyName.safeParse('   ').success).toBe(false);
  expect(StudyName.safeParse('x'.repeat(201)).success).toBe(false);
});

it('a report of before there were emails is one of rows', () => {
  const old = {
    source: 1,
    file: 'a.csv',
    read: 1,
    kept: 1,
    skipped: 0,
    skippedByReason: [],
    duplicates: 0,
    duplicatesInFile: 0,
    undated: 0,
    accountsNew: 1,
    accountsKnown: 0,
    authors: 1,
    mentions: 0,
    hashtags: 0,
    links: 0,
    parentsMissing: 0,
    from: null,
    until: null,
    notes: [],
  };
  expect(ImportReport.parse(old).unit).toBe('row');
});

describe('what a step is given', () => {
  const name = 'x'.repeat(201);
  it.each([
    ['create-study', { name }],
    ['rename-study', { name, before: '' }],
    ['rename-network', { network: 'n', name }],
    ['rename-network', { network: 'n', name: '  ' }],
    ['weave', { name, weave: { what: 'accounts', kinds: ['reply'] } }],
    ['import-network', { upload: 'u', file: 'f', name, reading: {} }],
    ['export-figure', { network: 'n', format: 'png', width: 0, height: 10, resolution: 300, caption: '' }],
    ['export-figure', { network: 'n', format: 'png', width: 1e9, height: 10, resolution: 300, caption: '' }],
    ['export-figure', { network: 'n', format: 'png', width: 10, height: 10, resolution: 1e6, caption: '' }],
    ['arrange-map', { network: 'n', layout: {}, upload: null, iterations: -1, moved: 0 }],
  ] as const)('is refused beyond its bounds: %s %j', (kind, parameters) => {
    expect(stepParameters[kind].safeParse(parameters).success).toBe(false);
  });
});

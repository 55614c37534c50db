import { Migrator, sql, type CreateTableBuilder, type Kysely, type Migration } from 'kysely';
import { buildRowIndexes } from './load/rowIndexes';

type Column = readonly [
  name: string,
  type: 'integer' | 'real' | 'text' | 'blob',
  how?: 'key' | 'numbered' | 'there' | { readonly usually: number | string },
];

/** The columns of a table: "key" is the primary key, "numbered" one of which no number comes twice, "there" never null. */
function columns(table: CreateTableBuilder<string, never>, all: readonly Column[]) {
  let built: CreateTableBuilder<string, string> = table;
  for (const [name, type, how] of all)
    built = built.addColumn(name, type, (column) => {
      if (how === 'key') return column.primaryKey();
      if (how === 'numbered') return column.primaryKey().autoIncrement();
      if (how === 'there') return column.notNull();
      return how ? column.notNull().defaultTo(how.usually) : column;
    });
  return built;
}

const STUDY: readonly Column[] = [
  ['name', 'text', 'there'],
  ['created_at', 'text', 'there'],
  ['changed_at', 'text', 'there'],
  ['deleted_at', 'text'],
  ['archived_at', 'text'],
];
const SOURCE: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['step_id', 'integer', 'there'],
  ['name', 'text', 'there'],
  ['format', 'text', 'there'],
  ['report', 'text', 'there'],
  ['removed_at', 'text'],
];
const ACCOUNT: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['handle_key', 'text', 'there'],
  ['handle', 'text', 'there'],
  ['name', 'text'],
];
const MESSAGE: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['source_id', 'integer', 'there'],
  ['key', 'text', 'there'],
  ['author_id', 'integer', 'there'],
  ['time', 'integer'],
  ['kind', 'text', 'there'],
  ['parent_key', 'text'],
  ['parent_author_id', 'integer'],
  ['link', 'text'],
  ['subject', 'text'],
  ['text', 'text', 'there'],
  ['item_key', 'text'],
  ['more', 'text'],
];
const ADDRESS: readonly Column[] = [
  ['message_id', 'integer', 'there'],
  ['to_id', 'integer', 'there'],
  ['from_id', 'integer', 'there'],
  ['kinds', 'integer', 'there'],
  ['time', 'integer'],
];
const MESSAGE_HASHTAG: readonly Column[] = [
  ['hashtag_id', 'integer', 'there'],
  ['message_id', 'integer', 'there'],
];
const ITEM: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['source_id', 'integer', 'there'],
  ['key', 'text', 'there'],
  ['title', 'text', 'there'],
  ['account_id', 'integer'],
  ['time', 'integer'],
  ['link', 'text'],
  ['text', 'text', 'there'],
  ['more', 'text'],
];
const FOLLOW: readonly Column[] = [
  ['followed_id', 'integer', 'there'],
  ['follower_id', 'integer', 'there'],
  ['source_id', 'integer', 'there'],
];
const PROFILE: readonly Column[] = [
  ['account_id', 'integer', 'there'],
  ['source_id', 'integer', 'there'],
  ['profile', 'text', 'there'],
];
const STEP: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['kind', 'text', 'there'],
  ['state', 'text', 'there'],
  ['parameters', 'text', 'there'],
  ['result', 'text'],
  ['sentence', 'text', 'there'],
  ['error', 'text'],
  ['seed', 'integer'],
  ['started_at', 'text', 'there'],
  ['ended_at', 'text'],
  ['duration', 'integer'],
];
const NETWORK: readonly Column[] = [
  ['id', 'text', 'key'],
  ['step_id', 'integer', 'there'],
  ['name', 'text', 'there'],
  ['weave', 'text', 'there'],
  ['directed', 'integer', 'there'],
  ['own_columns', 'text', 'there'],
  ['decisions', 'text', { usually: '[]' }],
  ['slice', 'text'],
  ['changed', 'text'],
  ['whole', 'text'],
  ['groupings', 'text', { usually: '{}' }],
  ['forgotten', 'integer', { usually: 0 }],
  ['sentence', 'text', 'there'],
  ['nodes', 'integer', 'there'],
  ['edges', 'integer', 'there'],
  ['messages', 'integer', 'there'],
  ['state', 'text', 'there'],
  ['measures', 'text', 'there'],
  ['created_at', 'text', 'there'],
  ['deleted_at', 'text'],
];
const MAP: readonly Column[] = [
  ['network_id', 'text', 'key'],
  ['description', 'text', 'there'],
  ['layout', 'text'],
  ['iterations', 'integer'],
  ['moved', 'integer', 'there'],
  ['positions', 'blob'],
];
const TIDY_DECISION: readonly Column[] = [
  ['id', 'integer', 'numbered'],
  ['step_id', 'integer', 'there'],
  ['sort', 'text', 'there'],
  ['key', 'text', 'there'],
  ['verdict', 'text', 'there'],
  ['taken_back', 'integer', 'there'],
];
const COLLECT_RUN: readonly Column[] = [
  ['id', 'text', 'key'],
  ['name', 'text', 'there'],
  ['service', 'text', 'there'],
  ['plan', 'text', 'there'],
  ['counts', 'text', 'there'],
  ['notes', 'text', 'there'],
  ['state', 'text', 'there'],
  ['place', 'text'],
  ['spool_bytes', 'integer', 'there'],
  ['share', 'real'],
  ['wait_until', 'integer'],
  ['error', 'text'],
  ['source_id', 'integer'],
  ['previous', 'text'],
  ['service_state', 'text'],
  ['ended_by_hand', 'integer', 'there'],
  ['created_at', 'text', 'there'],
  ['ended_at', 'text'],
];

/** Tables with nothing more to them than their columns. */
const PLAIN: Readonly<Record<string, readonly Column[]>> = {
  study: STUDY,
  source: SOURCE,
  account: ACCOUNT,
  parked_account: ACCOUNT,
  message: MESSAGE,
  parked_message: MESSAGE,
  step: STEP,
  network: NETWORK,
  map: MAP,
  tidy_decision: TIDY_DECISION,
  collect_run: COLLECT_RUN,
  hashtag: [
    ['id', 'integer', 'key'],
    ['tag_key', 'text', 'there'],
    ['tag', 'text', 'there'],
  ],
  message_language: [
    ['message_id', 'integer', 'key'],
    ['language', 'text', 'there'],
    ['how', 'text', 'there'],
  ],
  message_mark: [
    ['message_id', 'integer', 'key'],
    ['starred', 'integer', 'there'],
    ['note', 'text', 'there'],
  ],
  name: [
    ['id', 'integer', 'key'],
    ['name_key', 'text', 'there'],
    ['label', 'text', 'there'],
    ['kind', 'text', 'there'],
  ],
  node_picture: [
    ['name', 'text', 'key'],
    ['image', 'text', 'there'],
  ],
  saved_filter: [
    ['id', 'integer', 'key'],
    ['name', 'text', 'there'],
    ['filter', 'text', 'there'],
  ],
  staged_file: [
    ['place', 'text', 'key'],
    ['comes', 'integer', 'there'],
  ],
  follow_up: [
    ['id', 'integer', 'key'],
    ['kind', 'text', 'there'],
    ['parameters', 'text', 'there'],
    ['beginnings', 'integer', 'there'],
  ],
};

/** Tables that are their own index: rows lie in the order of a key. */
const KEYED: Readonly<Record<string, readonly [columns: readonly Column[], key: readonly string[]]>> = {
  address: [ADDRESS, ['message_id', 'to_id']],
  parked_address: [ADDRESS, ['message_id', 'to_id']],
  message_hashtag: [MESSAGE_HASHTAG, ['message_id', 'hashtag_id']],
  parked_message_hashtag: [MESSAGE_HASHTAG, ['message_id', 'hashtag_id']],
  follow: [FOLLOW, ['followed_id', 'follower_id', 'source_id']],
  parked_follow: [FOLLOW, ['followed_id', 'follower_id', 'source_id']],
  profile: [PROFILE, ['account_id', 'source_id']],
  parked_profile: [PROFILE, ['account_id', 'source_id']],
};

const first: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    for (const [name, all] of Object.entries({ ...PLAIN, item: ITEM, parked_item: ITEM }))
      await columns(schema.createTable(name), all).execute();
    for (const [name, [all, key]] of Object.entries(KEYED))
      await columns(schema.createTable(name), all)
        .addPrimaryKeyConstraint(`${name}_key`, [...key] as never)
        .modifyEnd(sql`without rowid`)
        .execute();
    await columns(schema.createTable('message_name'), [
      ['name_id', 'integer', 'there'],
      ['message_id', 'integer', 'there'],
    ])
      .addPrimaryKeyConstraint('message_name_pair', ['name_id', 'message_id'] as never)
      .execute();
    await columns(schema.createTable('message_score'), [
      ['message_id', 'integer', 'there'],
      ['scorer', 'text', 'there'],
      ['value', 'real', 'there'],
    ])
      .addPrimaryKeyConstraint('message_score_pair', ['message_id', 'scorer'] as never)
      .execute();
    for (const [name, table, column] of [
      ['hashtag_key', 'hashtag', 'tag_key'],
      ['name_key', 'name', 'name_key'],
      ['item_key', 'item', 'key'],
      ['saved_filter_name', 'saved_filter', 'name'],
    ] as const)
      await schema.createIndex(name).on(table).column(column).unique().execute();
    await sql`create index message_item on message (item_key) where item_key is not null`.execute(db);
    await schema.createIndex('tidy_decision_sort').on('tidy_decision').column('sort').execute();
    await buildRowIndexes(db);
    await sql`create virtual table message_text using fts5(text, subject, content='message', content_rowid='id', columnsize=0, tokenize='unicode61 remove_diacritics 2')`.execute(
      db,
    );
    // What is deleted leaves no words behind.
    await sql`insert into message_text (message_text, rank) values ('secure-delete', 1)`.execute(db);
    // Words that wait in memory before they are written out; large imports are quicker with more than the usual 1 MB.
    await sql`insert into message_text (message_text, rank) values ('hashsize', ${sql.lit(8 * 1024 ** 2)})`.execute(
      db,
    );
  },
};

const GROUP: readonly Column[] = [
  ['network_id', 'text', 'there'],
  ['grouping', 'text', 'there'],
  ['value', 'text', 'there'],
];

/** What is known of groups, and what the researcher wrote about them. */
const portraits: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    const tables: Readonly<Record<string, readonly Column[]>> = {
      portrait_set: [
        ...GROUP.slice(0, 2),
        ['step_id', 'integer', 'there'],
        ['settings', 'text', 'there'],
        ['drawn_from', 'text', 'there'],
        ['whole', 'text', 'there'],
      ],
      portrait: [
        ...GROUP,
        ['place', 'integer', 'there'],
        ['head', 'text', 'there'],
        ['body', 'text', 'there'],
      ],
      group_notes: [
        ...GROUP,
        ['title', 'text', 'there'],
        ['memo', 'text', 'there'],
        ['quotations', 'text', 'there'],
      ],
    };
    for (const [name, all] of Object.entries(tables)) {
      const key = GROUP.map(([column]) => column).filter((column) => all.some(([one]) => one === column));
      await columns(schema.createTable(name), all).addPrimaryKeyConstraint(`${name}_key`, key).execute();
    }
  },
};

/** How groups go on through time, and what the researcher marks in time. */
const following: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('following'), [
      ['network_id', 'text', 'key'],
      ['step_id', 'integer', 'there'],
      ['drawn_from', 'text', 'there'],
      ['body', 'text', 'there'],
    ]).execute();
    await columns(schema.createTable('moment'), [
      ['id', 'integer', 'numbered'],
      ['time', 'integer', 'there'],
      ['name', 'text', 'there'],
    ]).execute();
  },
};

/** Codes, what is to be coded, and what was. */
const coding: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('code'), [
      ['id', 'integer', 'numbered'],
      ['place', 'integer', 'there'],
      ['name', 'text', 'there'],
      ['code_set', 'text', 'there'],
      ['definition', 'text', 'there'],
      ['examples', 'text', 'there'],
      ['colour', 'text', 'there'],
    ]).execute();
    await columns(schema.createTable('sample'), [
      ['id', 'integer', 'numbered'],
      ['step_id', 'integer', 'there'],
      ['name', 'text', 'there'],
    ]).execute();
    const keyed: Readonly<Record<string, readonly [columns: readonly Column[], key: readonly string[]]>> = {
      coded_message: [
        [
          ['message_id', 'integer', 'there'],
          ['coder', 'text', 'there'],
        ],
        ['message_id', 'coder'],
      ],
      coding: [
        [
          ['message_id', 'integer', 'there'],
          ['coder', 'text', 'there'],
          ['code_id', 'integer', 'there'],
        ],
        ['message_id', 'coder', 'code_id'],
      ],
      sample_message: [
        [
          ['sample_id', 'integer', 'there'],
          ['place', 'integer', 'there'],
          ['message_id', 'integer', 'there'],
        ],
        ['sample_id', 'place'],
      ],
    };
    for (const [name, [all, key]] of Object.entries(keyed))
      await columns(schema.createTable(name), all)
        .addPrimaryKeyConstraint(`${name}_key`, [...key] as never)
        .modifyEnd(sql`without rowid`)
        .execute();
    await schema.createIndex('coding_code').on('coding').column('code_id').execute();
  },
};

/** Kept states of maps. */
const plates: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('plate'), [
      ['id', 'integer', 'numbered'],
      ['place', 'integer', 'there'],
      ['network_id', 'text', 'there'],
      ['step_id', 'integer', 'there'],
      ['kept_at', 'text', 'there'],
      ['title', 'text', 'there'],
      ['note', 'text', 'there'],
      ['cover', 'integer', 'there'],
      ['map', 'text', 'there'],
      ['drawn', 'text', 'there'],
      ['positions', 'blob', 'there'],
      ['deleted_at', 'text'],
    ]).execute();
  },
};

/** Pseudonyms, and how people are called. */
const people: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('naming'), [
      ['secret', 'text', 'there'],
      ['body', 'text', 'there'],
    ]).execute();
    await columns(schema.createTable('pseudonym'), [
      ['person', 'text', 'key'],
      ['number', 'integer', 'there'],
      ['words', 'text', 'there'],
    ])
      .addUniqueConstraint('pseudonym_number', ['number'])
      .addUniqueConstraint('pseudonym_words', ['words'])
      .execute();
  },
};

/** Networks that packages brought. */
const packages: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await schema.alterTable('network').addColumn('opened', 'text').execute();
  },
};

/** Times that routines were run, and which steps were done for them. */
const routines: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('routine_run'), [
      ['id', 'integer', 'numbered'],
      ['routine', 'text', 'there'],
      ['answers', 'text', 'there'],
      ['state', 'text', 'there'],
      ['stopped', 'text', { usually: '{}' }],
      ['fingerprint', 'text'],
      ['first_run', 'integer'],
      ['varied', 'text'],
      ['started_at', 'text', 'there'],
      ['ended_at', 'text'],
    ]).execute();
    await schema.alterTable('step').addColumn('run_id', 'integer').execute();
    await schema.alterTable('step').addColumn('run_part', 'text').execute();
    await schema.createIndex('step_run').on('step').column('run_id').execute();
  },
};

/** Routines that run by themselves, which runs they began, and what is needed to make a run again. */
const standing: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await columns(schema.createTable('standing_routine'), [
      ['id', 'integer', 'numbered'],
      ['routine', 'text', 'there'],
      ['answers', 'text', 'there'],
      ['fires', 'text', 'there'],
      ['is_on', 'integer', 'there'],
      ['seen_step', 'integer', 'there'],
      ['next_at', 'text'],
      ['waits_for', 'text'],
      ['last_run', 'integer'],
      ['note', 'text'],
      ['created_at', 'text', 'there'],
    ]).execute();
    await schema.alterTable('routine_run').addColumn('standing', 'integer').execute();
    for (const [name, usually] of [
      ['inputs', '{}'],
      ['version', ''],
      ['material', ''],
    ] as const)
      await schema
        .alterTable('routine_run')
        .addColumn(name, 'text', (column) => column.notNull().defaultTo(usually))
        .execute();
    await schema.alterTable('routine_run').addColumn('results', 'text').execute();
    await schema.alterTable('routine_run').addColumn('verified', 'text').execute();
  },
};

/** Every change of the tables of a study in its order; each runs once. */
export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '0001-first': first,
  '0002-portraits': portraits,
  '0003-following': following,
  '0004-coding': coding,
  '0005-plates': plates,
  '0006-people': people,
  '0007-packages': packages,
  '0008-routines': routines,
  '0009-standing': standing,
};

/** Brings the tables of a study to the newest form. Throws where they are of a later version than this application. */
export async function migrate(
  db: unknown,
  migrations: Readonly<Record<string, Migration>> = MIGRATIONS,
): Promise<void> {
  const migrator = new Migrator({
    db: db as Kysely<unknown>,
    provider: { getMigrations: () => Promise.resolve({ ...migrations }) },
  });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error instanceof Error ? error : new Error(String(error));
}

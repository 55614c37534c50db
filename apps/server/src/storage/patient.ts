import { setTimeout as pause } from 'node:timers/promises';
import type { CompiledQuery, DatabaseConnection, Driver, QueryResult, SqliteDialectConfig } from 'kysely';
import { SqliteDialect } from 'kysely';

/** Milliseconds between two tries of a query while another connection writes. */
const AGAIN = 40;
/** Milliseconds after which the one who asks is told that the database is busy: longer than any step writes. */
const LONGEST = 30 * 60_000;

/**
 * SQLite for the thread that answers requests: where a step in another thread writes, a query waits for its turn without blocking, and what
 * else is asked is answered meanwhile. For single statements: a transaction would have to keep the others out.
 */
export class PatientDialect extends SqliteDialect {
  /** Queries that wait for their answer. */
  asked = 0;

  constructor(
    config: SqliteDialectConfig,
    private readonly longest = LONGEST,
  ) {
    super(config);
  }

  override createDriver(): Driver {
    return new PatientDriver(super.createDriver(), this.longest, (more) => (this.asked += more));
  }
}

class PatientDriver implements Driver {
  constructor(
    private readonly inner: Driver,
    private readonly longest: number,
    private readonly counted: (more: 1 | -1) => void,
  ) {}

  private readonly connection: DatabaseConnection = {
    executeQuery: (query) => this.patiently(query),
    streamQuery: () => {
      throw new Error('The thread that answers requests reads no streams.');
    },
  };

  init(): Promise<void> {
    return this.inner.init();
  }

  acquireConnection(): Promise<DatabaseConnection> {
    return Promise.resolve(this.connection);
  }

  releaseConnection(): Promise<void> {
    return Promise.resolve();
  }

  beginTransaction(): Promise<void> {
    return noTransactions();
  }

  commitTransaction(): Promise<void> {
    return noTransactions();
  }

  rollbackTransaction(): Promise<void> {
    return noTransactions();
  }

  destroy(): Promise<void> {
    return this.inner.destroy();
  }

  private async patiently<R>(query: CompiledQuery): Promise<QueryResult<R>> {
    const begun = performance.now();
    this.counted(1);
    try {
      for (;;) {
        const connection = await this.inner.acquireConnection();
        try {
          return await connection.executeQuery<R>(query);
        } catch (error) {
          if (!isBusy(error) || performance.now() - begun > this.longest) throw error;
        } finally {
          await this.inner.releaseConnection(connection);
        }
        await pause(AGAIN);
      }
    } finally {
      this.counted(-1);
    }
  }
}

function noTransactions(): Promise<never> {
  return Promise.reject(new Error('The thread that answers requests writes in single statements.'));
}

/** Whether another connection is writing at the moment. */
export function isBusy(error: unknown): boolean {
  const { code } = (error ?? {}) as { code?: unknown };
  return typeof code === 'string' && (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'));
}

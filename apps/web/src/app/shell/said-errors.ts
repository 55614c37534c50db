import { ErrorHandler, inject, Injectable, Injector } from '@angular/core';
import { Notices } from '../store/notices';

const NOT_LOADED = /dynamically imported module|module script failed/;
/** Milliseconds for which the same is not said again. */
const QUIET = 5000;

/** What nobody expected to fail is said, not only written to the console: else it looks as if nothing had been pressed. */
@Injectable()
export class SaidErrors extends ErrorHandler {
  private readonly injector = inject(Injector);
  private said = '';
  private at = -Infinity;

  override handleError(error: unknown): void {
    super.handleError(error);
    const why = reasonOf(error);
    // A program that does not come is said elsewhere, with a way out.
    if (NOT_LOADED.test(why)) return;
    const now = performance.now();
    if (why === this.said && now - this.at < QUIET) return;
    [this.said, this.at] = [why, now];
    // Not before it is needed: notices need what may have failed.
    this.injector.get(Notices).say(`This could not be done: ${why} What was there before is kept.`);
  }
}

/** One sentence: of a value that does not fit, what is wrong with the first of its fields. */
function reasonOf(error: unknown): string {
  const { issues } = (error ?? {}) as {
    issues?: readonly { path: readonly PropertyKey[]; message: string }[];
  };
  const [issue] = issues ?? [];
  const message = issue
    ? `${issue.path.map(String).join(' ')}: ${issue.message}`
    : error instanceof Error
      ? error.message
      : String(error);
  const [line] = message.trim().split('\n');
  return /[.!?]$/.test(line) ? line : `${line}.`;
}

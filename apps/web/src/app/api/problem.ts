import { HttpErrorResponse } from '@angular/common/http';
import { Problem, type RefusedFile } from '@pebble/contract';

/** An error of the server in words for the person at the screen. */
export class ApiProblem extends Error {
  /** Why, and what was kept, without the place. */
  readonly reason: string;

  constructor(readonly problem: Problem) {
    const place = [problem.file, problem.row === undefined ? null : `line ${problem.row}`]
      .filter((part) => part)
      .join(', ');
    const reason = [problem.detail, problem.kept].filter((part) => part).join(' ');
    super(place ? `${place}: ${reason}` : reason);
    this.reason = reason;
  }
}

/** What is said while the application cannot be reached. */
export const OFFLINE = 'The application does not answer. Is it still running? What you did before is kept.';

/** Whether a request failed since there is nothing at its address. */
export const isMissing = (error: unknown): boolean =>
  error instanceof ApiProblem && error.problem.status === 404;

/** Any failure of a request as an ApiProblem. */
export function toProblem(error: unknown): Error {
  if (!(error instanceof HttpErrorResponse)) return error instanceof Error ? error : new Error(String(error));
  // What was asked for as text or bytes comes so when it is a problem, too.
  const sent: unknown = isBytes(error.error)
    ? new TextDecoder().decode(new Uint8Array(error.error))
    : error.error;
  const body = typeof sent === 'string' ? tryJson(sent) : sent;
  const problem = Problem.safeParse(body);
  if (problem.success) return new ApiProblem(problem.data);
  const detail =
    error.status === 0
      ? OFFLINE
      : `The application answered in a way that was not expected (${error.status}).`;
  return new ApiProblem({ type: 'about:blank', title: 'No answer', status: error.status, detail });
}

/** Also for bytes that were made in another frame or thread. */
function isBytes(value: unknown): value is ArrayBuffer {
  return Object.prototype.toString.call(value) === '[object ArrayBuffer]';
}

/** What is said in a list of files of one that was not taken. */
export function refusalOf(file: string, error: unknown): RefusedFile {
  const problem = toProblem(error);
  if (!(problem instanceof ApiProblem)) return { file, row: null, reason: problem.message };
  return { file, row: problem.problem.row ?? null, reason: problem.reason };
}

function tryJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

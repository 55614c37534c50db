import type { ErrorRequestHandler, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import type { Problem } from '@pebble/contract';
import { QueryError } from '@pebble/core';
import { UnreadableFile } from '@pebble/core/files';
import { damageOf } from '../files/damage';
import { isDiskFull } from '../files/diskFull';
import { faultOf, faultPhrase, type Fault } from '../files/log';
import { TooLarge } from '../files/receive';

/** An error with its HTTP status, to be answered as problem details (RFC 9457). */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly place: Pick<Problem, 'file' | 'row' | 'field' | 'kept'> = {},
  ) {
    super(detail);
  }
}

/** Throws, where a value is missing. */
export function fail(error: Error): never {
  throw error;
}

export function notFound(what: string): ApiError {
  return new ApiError(404, 'Not found', `${what} is not there; it may have been deleted.`);
}

/** Of a map that nobody has opened yet. */
export const NEVER_ARRANGED = new ApiError(
  409,
  'Not arranged',
  'This map was never arranged, so there is no figure of it. Open it once, or arrange it by the step arrange-map.',
);

function sendProblem(response: Response, problem: Problem): void {
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
}

/** Answers every error as problem details; what nobody expected is written down. */
export function problemHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    const problem = toProblem(error);
    if (problem === null) {
      const fault = faultOf(error);
      log.error(fault, `${request.method} could not be answered.`);
      if (!response.headersSent) sendProblem(response, failure(fault));
      else next(error);
      return;
    }
    if (response.headersSent) next(error);
    else sendProblem(response, problem);
  };
}

function failure(fault: Fault): Problem {
  return {
    type: 'about:blank',
    title: 'The application failed',
    status: 500,
    detail: `Something went wrong that was not expected. ${faultPhrase(fault)}`,
    kept: 'Everything that was finished before is kept.',
  };
}

/** Null for an error that nobody expected. */
function toProblem(error: unknown): Problem | null {
  const base = { type: 'about:blank' };
  if (error instanceof ApiError)
    return { ...base, title: error.title, status: error.status, detail: error.message, ...error.place };
  if (error instanceof UnreadableFile) {
    return {
      ...base,
      title: 'The file cannot be read',
      status: 422,
      detail: error.message,
      ...(error.file === null ? {} : { file: error.file }),
      ...(error.row === null ? {} : { row: error.row }),
      kept: 'The study is unchanged.',
    };
  }
  if (error instanceof TooLarge)
    return { ...base, title: 'The file is too large', status: 413, detail: error.message };
  if (isDiskFull(error))
    return {
      ...base,
      title: 'The disk is full',
      status: 507,
      detail: 'The disk of the data folder is full. Make room and try again.',
      kept: 'Everything that was finished before is kept.',
    };
  if (error instanceof QueryError)
    return {
      ...base,
      title: 'The search is not understood',
      status: 400,
      detail: `${error.message}.`,
      field: 'text',
    };
  if (error instanceof ZodError) {
    const [issue] = error.issues;
    return {
      ...base,
      title: 'The request is not right',
      status: 400,
      detail: issue?.message ?? 'The request does not fit.',
      field: issue?.path.join('.') || undefined,
    };
  }
  const damage = damageOf(error);
  if (damage) return { ...base, title: 'What is kept is damaged', status: 410, detail: damage.message };
  const { status, statusCode } = error as { status?: number; statusCode?: number };
  const code = status ?? statusCode ?? 500;
  if (code < 500)
    return {
      ...base,
      title: 'The request cannot be answered',
      status: code,
      detail: error instanceof Error ? error.message : String(error),
    };
  return null;
}

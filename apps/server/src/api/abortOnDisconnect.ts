import type { Response } from 'express';

/** Aborted when the one who asked goes away before there is an answer. */
export function abortOnDisconnect(response: Response): AbortSignal {
  const gone = new AbortController();
  response.on('close', () => {
    if (!response.writableFinished) gone.abort();
  });
  return gone.signal;
}

import { HttpClient, HttpEventType, type HttpEvent } from '@angular/common/http';
import { inject, InjectionToken } from '@angular/core';
import {
  addressOf,
  ROUTES,
  UploadAnswer,
  type Network,
  type Step,
  type StepKind,
  type StepParameters,
} from '@pebble/contract';
import { catchError, map, throwError, type Observable } from 'rxjs';
import { clientOf, headersOf, type Client } from './client';
import { toProblem } from './problem';

export { ApiProblem, isMissing, OFFLINE, refusalOf, toProblem } from './problem';

/** Which network, and of which study. */
export type NetworkPlace = Pick<Network, 'study' | 'id'>;

/** A network as addresses name it. */
export const pathOf = ({ study, id: network }: NetworkPlace): { study: string; network: string } => ({
  study,
  network,
});

/** A file on its way, and what was found in it once it is there. */
export interface Transfer {
  /** How much of it is sent, 0 to 1. */
  readonly share: number;
  readonly answer: UploadAnswer | null;
}

/** The API, and what needs more than one question and its answer. */
export interface Api extends Client {
  /** Runs a step; the answer comes when it has ended. */
  step<K extends StepKind>(study: string, kind: K, parameters: StepParameters<K>): Observable<Step>;
  /** Sends a file, with how far it is. */
  transfer(study: string, file: File): Observable<Transfer>;
}

export const Api = new InjectionToken<Api>('Api', {
  providedIn: 'root',
  factory: (): Api => {
    const http = inject(HttpClient);
    const client = clientOf(http);
    return {
      ...client,
      step: (study, kind, parameters) => client.runStep({ study }, { kind, parameters }),
      transfer: (study, file) =>
        http
          .post(addressOf(ROUTES.upload, { study }), file, {
            headers: headersOf({ bytes: file, name: file.name }),
            reportProgress: true,
            observe: 'events',
          })
          .pipe(
            map(transferOf),
            catchError((error: unknown) => throwError(() => toProblem(error))),
          ),
    };
  },
});

function transferOf(event: HttpEvent<unknown>): Transfer {
  if (event.type === HttpEventType.Response) return { share: 1, answer: UploadAnswer.parse(event.body) };
  const isOnItsWay = event.type === HttpEventType.UploadProgress && event.total;
  return { share: isOnItsWay ? event.loaded / event.total! : 0, answer: null };
}

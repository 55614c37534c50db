import type { HttpInterceptorFn, HttpRequest } from '@angular/common/http';
import { inject } from '@angular/core';
import { Leaving } from './leaving';

/** The longest body in bytes of a request that outlives its page (Fetch Standard, "HTTP-network-or-cache fetch": 64 KiB for all of them together). */
const LONGEST = 48 * 1024;

/** What is sent in the moment in which the page is left arrives all the same. */
export const keptAlive: HttpInterceptorFn = (request, next) => {
  const isKept = inject(Leaving).isNow && sizeOf(request.serializeBody()) <= LONGEST;
  return next(isKept ? request.clone({ keepalive: true }) : request);
};

/** Bytes of a body; of one whose size is not known, too many. */
function sizeOf(body: ReturnType<HttpRequest<unknown>['serializeBody']>): number {
  if (body === null) return 0;
  if (typeof body === 'string') return new Blob([body]).size;
  if (body instanceof ArrayBuffer) return body.byteLength;
  return body instanceof Blob ? body.size : Infinity;
}

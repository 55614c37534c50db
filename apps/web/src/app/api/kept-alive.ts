import type { HttpInterceptorFn } from '@angular/common/http';
import { inject } from '@angular/core';
import { Leaving } from './leaving';

/** The longest body in bytes of a request that outlives its page (Fetch Standard, "HTTP-network-or-cache fetch": 64 KiB for all of them together). */
const LONGEST = 48 * 1024;

/** What is sent in the moment in which the page is left arrives all the same. */
export const keptAlive: HttpInterceptorFn = (request, next) => {
  const fits = (): boolean => new Blob([String(request.serializeBody())]).size <= LONGEST;
  return next(inject(Leaving).isNow && fits() ? request.clone({ keepalive: true }) : request);
};

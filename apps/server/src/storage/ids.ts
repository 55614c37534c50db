import { randomBytes } from 'node:crypto';

/** A fresh id of a study: the name of its folder. */
export function newStudyId(): string {
  return randomBytes(5).toString('hex');
}

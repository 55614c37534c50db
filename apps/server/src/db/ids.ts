import { randomBytes } from 'node:crypto';

/** A fresh id of a study. It stands in every row and index of the study, and is short for that reason. */
export function newStudyId(): string {
  return randomBytes(5).toString('hex');
}

/** "RT @name: ..." at the start of a text marks a repost by common practice. */
const MARK = /^RT @([\p{L}\p{N}_.@-]*[\p{L}\p{N}_]):?\s/u;

/** Whom the mark of a repost names, and where the mark ends; null where a text begins with none. */
export function findRepostMark(text: string): { readonly handle: string; readonly end: number } | null {
  const found = text.startsWith('RT @') ? MARK.exec(text) : null;
  return found && { handle: found[1], end: found[0].length };
}

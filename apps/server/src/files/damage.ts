/** What is kept cannot be read any more. The message says what is damaged, what still works, and what to do. */
export class Damaged extends Error {}

/** What an error says of damaged files; null where it says something else. */
export function damageOf(error: unknown): Damaged | null {
  if (error instanceof Damaged) return error;
  const { code } = (error ?? {}) as { code?: unknown };
  const isDatabase = typeof code === 'string' && /^SQLITE_(?:CORRUPT|NOTADB|FORMAT)/.test(code);
  return isDatabase
    ? new Damaged(
        'The database of this study (study.sqlite) is damaged. What does not need the damaged part still works, and other studies are not touched. End the application, keep a copy of the folder of the study, and put the last good copy of it in its place.',
      )
    : null;
}

/** An error's words without the places of files on this machine. */
export function withoutPaths(text: string): string {
  return text.replace(/(?:[A-Za-z]:)?(?:[\\/][^\s'"\\/:,;]+){2,}[\\/]?/g, '…');
}

/** What the program gives back to whoever started it. */
export const EXIT = { done: 0, refused: 1, usage: 2, incomplete: 3 } as const;

/** Something that cannot be done, in words, with what is given back. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly exit: number = EXIT.refused,
  ) {
    super(message);
  }
}

/** Says what is going on: as lines that take each other's place on a terminal, as lines of JSON elsewhere. */
export interface Telling {
  /** @param share 0 to 1, null while unknown */
  progress(what: string, share: number | null): void;
  /** What stays to be read. */
  done(event: string, details: object, words: string): void;
}

export function tellingTo(output: NodeJS.WriteStream): Telling {
  if (!output.isTTY) {
    const line = (value: object): void => void output.write(`${JSON.stringify(value)}\n`);
    let last = '';
    return {
      progress(what, share) {
        // A line for each hundredth would say nothing more.
        const tenth = share === null ? null : Math.floor(share * 10) / 10;
        const now = `${what} ${tenth}`;
        if (now !== last) line({ event: 'progress', what, share: tenth });
        last = now;
      },
      done: (event, details) => line({ event, ...details }),
    };
  }
  return {
    progress(what, share) {
      output.clearLine(0);
      output.cursorTo(0);
      output.write(
        `${what}${share === null ? ' …' : ` ${(share * 100).toFixed(0)} %`}`.slice(0, output.columns),
      );
    },
    done(_event, _details, words) {
      output.clearLine(0);
      output.cursorTo(0);
      output.write(`${words}\n`);
    },
  };
}

declare module '@citation-js/core' {
  /** Reads references in many forms; its data are CSL-JSON. */
  export class Cite {
    constructor(text: string);
    readonly data: readonly Record<string, unknown>[];
  }
}
declare module '@citation-js/plugin-bibtex';

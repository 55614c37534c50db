/** A column of a table of a report. */
export interface ReportColumn {
  readonly title: string;
  /** Numbers stand at the right. */
  readonly isNumber: boolean;
}

/** A piece of a report, in the order in which it is read. */
export type ReportBlock =
  | { readonly what: 'heading'; readonly level: 2 | 3; readonly text: string }
  | { readonly what: 'text'; readonly text: string }
  | { readonly what: 'list'; readonly items: readonly string[] }
  | {
      readonly what: 'table';
      readonly title: string;
      readonly columns: readonly ReportColumn[];
      readonly rows: readonly (readonly string[])[];
    }
  | { readonly what: 'figure'; readonly figure: ReportFigure };

/** What is said of a picture. */
export interface ReportFigure {
  readonly title: string;
  /** The sentence under it. */
  readonly caption: string;
  /** What is told to those who cannot see it. */
  readonly told: { readonly short: string; readonly long: string };
}

/** A document in a form of its own, which each format writes in its way. */
export interface Report {
  readonly title: string;
  readonly author: string;
  /** When it was made, RFC 3339. */
  readonly made: string;
  readonly blocks: readonly ReportBlock[];
}

/** A figure drawn, in the order of the figures of a report. */
export interface ReportPicture {
  readonly svg: string;
  readonly png: Uint8Array;
  /** Of the PNG, in pixels. */
  readonly width: number;
  readonly height: number;
}

/** What stands below the title: who made it, and when. */
export function bylineOf({ author, made }: Pick<Report, 'author' | 'made'>): string {
  return `${author === '' ? '' : `${author} · `}${made.slice(0, 10)} · made with Pebble Thread`;
}

/** What a figure and a table are called: "Figure 1. The two towns", in the order in which they come. */
export class Numbering {
  private figures = 0;
  private tables = 0;

  figure(title: string): string {
    return `Figure ${++this.figures}. ${title}`;
  }

  table(title: string): string {
    return `Table ${++this.tables}. ${title}`;
  }
}

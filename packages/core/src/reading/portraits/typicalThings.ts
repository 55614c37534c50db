import type { Term } from '@pebble/contract';
import type { Occurrences } from '../../weaves/common/occurrences';
import { CLEAR, logLikelihood, timesAsOften } from './keyness';
import type { MessageGroups } from './messageGroups';
import { byThing, ThingCounts } from './thingCounts';

export interface TypicalLimits {
  /** What stands in the messages of fewer authors of a group makes none of its topics. */
  readonly leastAuthors: number;
  /** Terms of each list. */
  readonly most: number;
}

/** What stands in the messages of one group. */
export interface GroupThings {
  /** In a clearly larger share of its messages than elsewhere, the clearest first. */
  readonly typical: Term[];
  /** In most of its messages. */
  readonly used: Term[];
  /** In a clearly smaller share of its messages than elsewhere, the clearest first. */
  readonly missing: Term[];
  /** How many would be typical, were they not written by so few. */
  readonly ofFewAuthors: number;
}

/** Fewer messages say nothing of a group. */
const LEAST_MESSAGES = 3;

/**
 * What is typical for each group of messages beside all others of the network, by log-likelihood (see `logLikelihood`). A thing counts once
 * for each message in which it stands.
 */
export function typicalThings(
  occurrences: Occurrences,
  groups: MessageGroups,
  labelOf: (thing: number) => string,
  { leastAuthors, most }: TypicalLimits,
): GroupThings[] {
  const found = Array.from({ length: groups.groups }, () => new Shortlist(most, leastAuthors));
  const counts = new ThingCounts(groups, occurrences);
  for (const { thing, rows } of byThing(occurrences, groups)) {
    counts.count(rows);
    const label = labelOf(thing);
    for (const g of counts.all >= LEAST_MESSAGES ? counts.toldOf() : counts.touched) {
      const beside = counts.beside(g);
      const term: Term = {
        label,
        messages: beside.here,
        elsewhere: beside.elsewhere,
        authors: counts.authors[g],
        score: logLikelihood(beside),
        times: finite(timesAsOften(beside)),
      };
      const isMore = beside.here * beside.ofElsewhere > beside.elsewhere * beside.ofHere;
      found[g].take(term, isMore, counts.allAuthors);
    }
  }
  return found.map((one) => one.done());
}

/** JSON knows no infinity. */
function finite(value: number): number | null {
  return Number.isFinite(value) ? value : null;
}

/** The best terms of one group. */
class Shortlist {
  private readonly typical: Best;
  private readonly used: Best;
  private readonly missing: Best;
  private ofFewAuthors = 0;

  constructor(
    most: number,
    private readonly leastAuthors: number,
  ) {
    this.typical = new Best(most, byScore);
    this.used = new Best(most, byUse);
    this.missing = new Best(most, byScore);
  }

  /** @param isMore whether it stands in a larger share here than elsewhere */
  take(term: Term, isMore: boolean, allAuthors: number): void {
    if (term.messages > 0) this.used.take(term);
    if (term.score < CLEAR) return;
    if (!isMore) {
      if (allAuthors >= this.leastAuthors) this.missing.take(term);
    } else if (term.messages >= LEAST_MESSAGES) {
      if (term.authors >= this.leastAuthors) this.typical.take(term);
      else this.ofFewAuthors++;
    }
  }

  done(): GroupThings {
    const { ofFewAuthors } = this;
    return {
      typical: this.typical.done(),
      used: this.used.done(),
      missing: this.missing.done(),
      ofFewAuthors,
    };
  }
}

/** The first of many terms by an order. */
class Best {
  private terms: Term[] = [];
  /** What stands behind it need not be kept. */
  private bar: Term | null = null;

  constructor(
    private readonly most: number,
    private readonly order: Order,
  ) {}

  take(term: Term): void {
    if (this.bar && this.order(term, this.bar) > 0) return;
    this.terms.push(term);
    if (this.terms.length < 4 * this.most + 16) return;
    this.terms = this.done();
    this.bar = this.terms.at(-1) ?? null;
  }

  done(): Term[] {
    return this.terms.sort(this.order).slice(0, this.most);
  }
}

type Order = (a: Term, b: Term) => number;
const byLabel: Order = (a, b) => (a.label < b.label ? -1 : Number(a.label > b.label));
const byScore: Order = (a, b) => b.score - a.score || byLabel(a, b);
const byUse: Order = (a, b) => b.messages - a.messages || byLabel(a, b);

import type { MessageKind } from '@pebble/contract';
import { Random } from '@pebble/core';
import { makeAccounts, type DemoAccount } from './accounts';
import { moments, POWER_FAILURE } from './clock';
import { GROUPS, NEIGHBOURS, type GroupName, type GroupPlan } from './groups';
import { WeightedChoice } from './random';
import {
  DRIVER_POSTS,
  LOUD_ASIDE,
  LOUD_POSTS,
  POSTS,
  POSTS_ELSEWHERE,
  REPLIES,
  REPLIES_ELSEWHERE,
  RING_TEXTS,
} from './texts';
import { fill, handwriting, hashtagsFor, linkFor } from './writing';

/** The ways in which posts address accounts. */
const POST_ADDRESSES = ['reply', 'quote', 'mention', 'repost'] as const;
type PostAddress = (typeof POST_ADDRESSES)[number];

/** A post of Tidepost as its export file holds it. */
export interface DemoPost {
  readonly id: string;
  readonly author: string;
  readonly author_name: string;
  readonly text: string;
  readonly created_at: string;
  readonly kind: MessageKind;
  readonly in_reply_to: string;
  readonly in_reply_to_handle: string;
  readonly url: string;
  readonly likes: number;
  readonly followers: number;
  readonly lang: string;
}

/** What was planted, for tests to look for. */
export interface DemoTruth {
  readonly seed: number;
  readonly posts: number;
  readonly accounts: number;
  readonly group: Readonly<Record<string, GroupName>>;
  readonly loud: string;
  readonly driver: string;
  readonly ring: readonly string[];
  /** Accounts that address nobody and are addressed by nobody. */
  readonly isolates: number;
  /** Directed ties between different accounts, by kind and altogether. */
  readonly ties: Readonly<Record<PostAddress | 'all', number>>;
  /** Pairs of message and addressed account, by kind. */
  readonly addresses: Readonly<Record<PostAddress, number>>;
}

export interface DemoMaterial {
  readonly posts: readonly DemoPost[];
  readonly truth: DemoTruth;
}

export const DEMO_SEED = 20260301;
export const DEMO_POSTS = 9000;

interface Draft {
  readonly author: DemoAccount;
  readonly time: number;
  kind: MessageKind;
  text: string;
  lang: string;
  parent: number;
  mentions: string[];
}

/** Writes the posts of the story. The same seed and number give the same posts. */
export function makePosts(count = DEMO_POSTS, seed = DEMO_SEED): DemoMaterial {
  return new PostWriter(count, seed).write();
}

const RECENT = 60;

class PostWriter {
  private readonly chance: Random;
  private readonly accounts: DemoAccount[];
  private readonly drafts: Draft[] = [];
  private readonly plans = new Map(GROUPS.map((plan) => [plan.name, plan]));
  private readonly authorsOf = new Map<GroupName, WeightedChoice<DemoAccount>>();
  private readonly appealingOf = new Map<GroupName, WeightedChoice<DemoAccount>>();
  private readonly recent = new Map<GroupName, number[]>();
  private readonly loud: DemoAccount;
  private readonly driver: DemoAccount;

  constructor(
    private readonly count: number,
    private readonly seed: number,
  ) {
    this.chance = new Random(seed);
    this.accounts = makeAccounts(this.chance, Math.max(0.05, count / DEMO_POSTS));
    [this.loud, this.driver] = this.accounts;
    for (const plan of GROUPS) {
      const members = this.accounts.slice(2).filter((account) => account.group === plan.name);
      this.authorsOf.set(plan.name, new WeightedChoice(members, (a) => a.activity));
      this.appealingOf.set(plan.name, new WeightedChoice(members, (a) => a.appeal));
      this.recent.set(plan.name, []);
    }
  }

  write(): DemoMaterial {
    const lone = this.accounts.filter((account) => account.group === 'lone');
    const times = moments(this.count, this.chance);
    const lonePlace = new Map(
      lone.map((account, i) => [Math.floor(((i + 0.5) * this.count) / lone.length), account]),
    );
    const groupChoice = new WeightedChoice(
      GROUPS.filter((plan) => plan.share > 0 && plan.name !== 'ring'),
      (plan) => plan.share,
    );
    let queued: Draft[] = [];
    for (let i = 0; i < this.count; i++) {
      const time = times[i];
      const stranger = lonePlace.get(i);
      if (stranger) this.add(this.lonePost(stranger, time));
      else if (queued.length > 0) this.add({ ...queued.shift()!, time });
      else if (this.chance.chance(0.035)) this.add(this.loudPost(time));
      else if (this.chance.chance(0.012)) this.add(this.driverPost(time));
      else if (this.chance.chance(0.0022)) {
        queued = this.ringWave(time);
        this.add(queued.shift()!);
      } else this.add(this.groupMessage(groupChoice.draw(this.chance), time));
    }
    this.pressRingTogether();
    return { posts: this.drafts.map((draft, i) => this.finish(draft, i)), truth: this.truth() };
  }

  private add(draft: Draft): void {
    const recent = this.recent.get(draft.author.group)!;
    recent.push(this.drafts.push(draft) - 1);
    if (recent.length > RECENT) recent.shift();
  }

  private lonePost(author: DemoAccount, time: number): Draft {
    const text = fill(this.chance.pick(POSTS.lone), this.chance);
    return this.draft(author, time, 'post', this.withTags(text, 'lone', time));
  }

  private loudPost(time: number): Draft {
    return this.draft(
      this.loud,
      time,
      'post',
      `${fill(this.chance.pick(LOUD_POSTS), this.chance)} #LateLampPlan #KeepOurLights`,
    );
  }

  /** The driver is the only one who speaks with both moth recorders and night workers; both answer. */
  private driverPost(time: number): Draft {
    const one = this.appealingOf.get('night')!.draw(this.chance);
    const other = this.appealingOf.get('moths')!.draw(this.chance);
    if (this.chance.chance(0.45)) {
      const author = this.chance.chance(0.5) ? one : other;
      const text = `@${this.driver.handle} ${fill(this.chance.pick(REPLIES), this.chance)}`;
      return this.draft(author, time, 'post', text, [this.driver.handle]);
    }
    const pattern = this.chance.pick(DRIVER_POSTS);
    const text = fill(pattern, this.chance, { one: one.handle, other: other.handle });
    const mentions = [
      pattern.includes('{one}') ? one.handle : '',
      pattern.includes('{other}') ? other.handle : '',
    ];
    return this.draft(
      this.driver,
      time,
      'post',
      this.withTags(text, 'moths', time),
      mentions.filter((handle) => handle !== ''),
    );
  }

  /** Up to 25 accounts post one sentence with one link, one after the other. */
  private ringWave(time: number): Draft[] {
    const link = `https://plain-truth-lamps.example/p/${10 + this.chance.below(80)}`;
    const sentence = fill(this.chance.pick(RING_TEXTS), this.chance, { link });
    const ring = this.accounts.filter((account) => account.group === 'ring');
    const chosen = this.chance.shuffle([...ring]).slice(0, 16 + this.chance.below(10));
    const text = `${sentence} #KeepOurLights #LateLampPlan`;
    const wave = chosen.map((author) => this.draft(author, time, 'post', text));
    const [leader] = ring;
    return [
      ...wave,
      ...chosen
        .slice(0, 5)
        .map((author) =>
          this.draft(author, time, 'post', `Well said @${leader.handle} ${sentence}`, [leader.handle]),
        ),
    ];
  }

  /** Posts of one wave fall within four minutes of each other. */
  private pressRingTogether(): void {
    let start = -1;
    this.drafts.forEach((draft, i) => {
      if (draft.author.group !== 'ring') return;
      const before = this.drafts[i - 1];
      if (before?.author.group !== 'ring') start = draft.time;
      this.drafts[i] = { ...draft, time: start + Math.floor(this.chance.real() * 230) * 1000 };
    });
    this.drafts.forEach((draft) => {
      if (draft.parent >= 0) draft.parent = Math.min(draft.parent, this.drafts.length - 1);
    });
  }

  private groupMessage(plan: GroupPlan, time: number): Draft {
    const author = this.authorsOf.get(plan.name)!.draw(this.chance);
    const roll = this.chance.real();
    const target = this.targetGroup(plan);
    if (plan.name === 'passing') return this.passingMessage(author, target, time);
    if (roll < 0.27) return this.plainPost(author, plan, time);
    if (roll < 0.45) return this.mentioning(author, plan, target, time);
    const parent = this.recentMessage(target, author);
    if (parent < 0) return this.plainPost(author, plan, time);
    if (roll < 0.8) return this.reply(author, parent, plan, time);
    if (roll < 0.95)
      return {
        ...this.draft(author, time, 'repost', this.drafts[parent].text),
        parent,
        lang: this.drafts[parent].lang,
      };
    const quote = `${fill(this.chance.pick(REPLIES), this.chance)}`;
    return { ...this.draft(author, time, 'quote', this.withTags(quote, plan.name, time)), parent };
  }

  private targetGroup(plan: GroupPlan): GroupName {
    if (this.chance.chance(plan.closed)) return plan.name;
    const others = NEIGHBOURS[plan.name];
    return others.length > 0 ? this.chance.pick(others) : plan.name;
  }

  private passingMessage(author: DemoAccount, target: GroupName, time: number): Draft {
    const text = fill(this.chance.pick(POSTS.passing), this.chance);
    if (this.chance.chance(0.4))
      return this.draft(author, time, 'post', `@${this.loud.handle} ${text}`, [this.loud.handle]);
    const other = this.appealingOf.get(target)!.draw(this.chance);
    return this.draft(author, time, 'post', this.withTags(`@${other.handle} ${text}`, 'passing', time), [
      other.handle,
    ]);
  }

  private plainPost(author: DemoAccount, plan: GroupPlan, time: number): Draft {
    const elsewhere = this.chance.chance(0.07) ? this.chance.pick(['fr', 'es'] as const) : null;
    const pattern = elsewhere
      ? this.chance.pick(POSTS_ELSEWHERE[elsewhere])
      : this.chance.pick(POSTS[plan.name]);
    let text = handwriting(fill(pattern, this.chance), this.chance);
    const mentions: string[] = [];
    if (this.chance.chance(0.14)) text += ` ${linkFor(this.chance)}`;
    if (this.chance.chance(0.16)) {
      text += ` ${this.chance.pick(LOUD_ASIDE)}`;
      mentions.push(this.loud.handle);
    }
    return this.draft(
      author,
      time,
      'post',
      this.withTags(text, plan.name, time),
      mentions,
      elsewhere ?? 'en',
    );
  }

  private mentioning(author: DemoAccount, plan: GroupPlan, target: GroupName, time: number): Draft {
    const handles = new Set<string>();
    const wanted = this.chance.chance(0.3) ? 2 : 1;
    for (let i = 0; i < wanted; i++) {
      const other = this.appealingOf.get(target)!.draw(this.chance);
      if (other !== author) handles.add(other.handle);
    }
    const names = [...handles].map((handle) => `@${handle}`).join(' ');
    const body = handwriting(fill(this.chance.pick(POSTS[plan.name]), this.chance), this.chance);
    const text = this.chance.chance(0.5) ? `${names} ${body}` : `${body} ${names}`;
    return this.draft(author, time, 'post', this.withTags(text, plan.name, time), [...handles]);
  }

  private reply(author: DemoAccount, parent: number, plan: GroupPlan, time: number): Draft {
    const answered = this.drafts[parent];
    const elsewhere = answered.lang === 'fr' || answered.lang === 'es' ? answered.lang : null;
    let text = elsewhere
      ? this.chance.pick(REPLIES_ELSEWHERE[elsewhere])
      : handwriting(fill(this.chance.pick(REPLIES), this.chance), this.chance);
    const mentions: string[] = [];
    if (this.chance.chance(0.3)) {
      text = `@${answered.author.handle} ${text}`;
      mentions.push(answered.author.handle);
    }
    if (this.chance.chance(0.06)) {
      text += ` ${this.chance.pick(LOUD_ASIDE)}`;
      mentions.push(this.loud.handle);
    }
    if (this.chance.chance(0.35)) text = this.withTags(text, plan.name, time);
    return { ...this.draft(author, time, 'reply', text, mentions, elsewhere ?? 'en'), parent };
  }

  /** A recent message of a group by somebody else, by appeal of its author; -1 when there is none. */
  private recentMessage(group: GroupName, author: DemoAccount): number {
    const recent = this.recent.get(group)!;
    let best = -1;
    for (let tries = 0; tries < 5; tries++) {
      const i = recent.length > 0 ? this.chance.pick(recent) : -1;
      if (i < 0) continue;
      const candidate = this.drafts[i].author;
      if (candidate === author || candidate === this.loud || candidate === this.driver) continue;
      if (best < 0 || candidate.appeal > this.drafts[best].author.appeal) best = i;
    }
    return best;
  }

  private withTags(text: string, group: GroupName, time: number): string {
    const tags = hashtagsFor(this.plans.get(group)!, time > POWER_FAILURE, this.chance).map(
      (tag) => `#${tag}`,
    );
    return [text, ...tags.filter((tag) => !text.includes(tag))].join(' ');
  }

  private draft(
    author: DemoAccount,
    time: number,
    kind: MessageKind,
    text: string,
    mentions: string[] = [],
    lang = 'en',
  ): Draft {
    return { author, time, kind, text, lang, parent: -1, mentions: [...mentions] };
  }

  private finish(draft: Draft, i: number): DemoPost {
    const parent = draft.parent >= 0 ? this.drafts[draft.parent] : null;
    return {
      id: postId(i),
      author: draft.author.handle,
      author_name: draft.author.name,
      text: draft.text,
      created_at: new Date(draft.time).toISOString().replace('.000', ''),
      kind: draft.kind,
      in_reply_to: parent ? postId(draft.parent) : '',
      in_reply_to_handle: parent ? parent.author.handle : '',
      url: `https://tidepost.example/@${draft.author.handle}/${postId(i)}`,
      likes: Math.floor(draft.author.followers ** (0.2 + 0.5 * this.chance.real())) - 1,
      followers: draft.author.followers,
      lang: draft.lang,
    };
  }

  /** Counts ties from what was drafted, without reading the texts. */
  private truth(): DemoTruth {
    const pairs: Record<PostAddress | 'all', Set<string>> = {
      reply: new Set(),
      quote: new Set(),
      mention: new Set(),
      repost: new Set(),
      all: new Set(),
    };
    const addresses: Record<PostAddress, number> = { reply: 0, quote: 0, mention: 0, repost: 0 };
    const tied = new Set<string>();
    for (const draft of this.drafts) {
      const own = draft.author.handle;
      const parent = draft.parent >= 0 ? this.drafts[draft.parent] : null;
      const to: Record<PostAddress, string[]> = {
        reply: parent && draft.kind === 'reply' ? [parent.author.handle] : [],
        quote: parent && draft.kind === 'quote' ? [parent.author.handle] : [],
        repost: parent && draft.kind === 'repost' ? [parent.author.handle] : [],
        mention:
          draft.kind === 'repost' ? mentionsPassedOn(this.drafts, draft) : [...new Set(draft.mentions)],
      };
      for (const kind of POST_ADDRESSES) {
        for (const other of to[kind]) {
          addresses[kind]++;
          if (other === own) continue;
          pairs[kind].add(`${own} ${other}`);
          pairs.all.add(`${own} ${other}`);
          tied.add(own);
          tied.add(other);
        }
      }
    }
    const known = this.drafts.map((draft) => draft.author.handle);
    const people = new Set([...known, ...tied]);
    return {
      seed: this.seed,
      posts: this.drafts.length,
      accounts: people.size,
      group: Object.fromEntries(
        this.accounts.filter((a) => people.has(a.handle)).map((a) => [a.handle, a.group]),
      ),
      loud: this.loud.handle,
      driver: this.driver.handle,
      ring: this.accounts.filter((a) => a.group === 'ring').map((a) => a.handle),
      isolates: [...people].filter((handle) => !tied.has(handle)).length,
      ties: {
        reply: pairs.reply.size,
        quote: pairs.quote.size,
        mention: pairs.mention.size,
        repost: pairs.repost.size,
        all: pairs.all.size,
      },
      addresses,
    };
  }
}

/** A repost carries the text of what it passes on, and so its mentions; a repost of a repost those of the first. */
function mentionsPassedOn(drafts: readonly Draft[], draft: Draft): string[] {
  let origin = drafts[draft.parent];
  while (origin.kind === 'repost') origin = drafts[origin.parent];
  return [...new Set(origin.mentions)];
}

function postId(i: number): string {
  return String(2_026_030_100_000 + i * 37);
}

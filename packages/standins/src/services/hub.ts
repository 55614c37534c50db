import { findSpans, handleKey, matches, parseQuery, QueryError } from '@pebble/core';
import { makePosts, type DemoPost } from '../sallowmere/posts';
import { makeVideos, type DemoComment, type DemoVideos } from '../sallowmere/reelcove';
import { makeFollowers, type DemoFollower, type FollowerList } from '../sallowmere/townspeople';
import {
  jsonAnswer,
  problemAnswer,
  type ServiceAnswer,
  type ServiceRequest,
  type SimulatedService,
} from './exchange';
import { Gate, type GateSettings } from './gate';

const TYPE = 'application/activity+json';
const CONTEXT = 'https://www.w3.org/ns/activitystreams';
const PAGE = 40;
const DAYS_BACK = 7;
const MOST_FOUND = 400;
/** The story ends here; a search looks back from it. */
const NOW = Date.UTC(2026, 4, 31, 23, 59, 59);
const DAY = 86_400_000;

/** What a page holds: the objects, or the addresses of actors. */
interface Collection {
  readonly items: readonly unknown[];
  /** Whether new things come in at its beginning while one reads. */
  readonly moves: boolean;
}

/**
 * A social hub that speaks ActivityStreams 2.0 (W3C Recommendation, 2017), with the posts, videos and followers of the demo's story. Its
 * pages move while one reads, some posts are gone (Tombstone), some links are short, searches look back a week and find so many.
 */
export class SimulatedHub implements SimulatedService {
  private readonly gate: Gate;
  private held: Held | null = null;
  private pagesGiven = 0;

  /** @param base its address, without a slash at the end */
  constructor(
    private readonly base: string,
    private readonly settings: GateSettings,
  ) {
    this.gate = new Gate(settings);
  }

  answer(request: ServiceRequest): ServiceAnswer {
    const path = decodeURIComponent(request.url.pathname).slice(new URL(this.base).pathname.length);
    if (path === '/token') return this.gate.giveToken(request);
    const short = /^\/l\/(\w+)$/.exec(path);
    if (short) return this.expand(short[1]);
    if (path === '' || path === '/') return jsonAnswer(this.description(), TYPE);
    const turned = this.gate.turnAway(request);
    if (turned) return turned;
    return this.route(path, request.url.searchParams) ?? problemAnswer(404, 'There is nothing here.');
  }

  private route(path: string, query: URLSearchParams): ServiceAnswer | null {
    const held = (this.held ??= new Held(this.base));
    const [, what, name, part] = path.split('/');
    switch (what) {
      case 'search':
        return this.search(held, query);
      case 'actors': {
        const actor = held.actor(name);
        if (!actor) return null;
        if (part === 'outbox') return this.page(path, query, { items: held.postsBy(name), moves: false });
        if (part === 'followers')
          return this.page(path, query, { items: held.followersOf(name), moves: true });
        return jsonAnswer(actor, TYPE);
      }
      case 'accounts':
        return jsonAnswer(
          {
            '@context': CONTEXT,
            type: 'Collection',
            items: query
              .getAll('id')
              .slice(0, PAGE)
              .flatMap((id) => held.actor(nameOf(id)) ?? []),
          },
          TYPE,
        );
      case 'objects': {
        const object = held.object(name);
        if (!object) return null;
        if (part !== 'replies') return jsonAnswer({ '@context': CONTEXT, ...object }, TYPE);
        return this.page(path, query, {
          items: held.answersTo(name, query.get('order') === 'rating'),
          moves: false,
        });
      }
      default:
        return null;
    }
  }

  private description(): object {
    const { requests, windowSeconds } = this.settings;
    return {
      '@context': CONTEXT,
      type: 'Service',
      id: this.base,
      name: 'Tidepost and Reelcove (simulated)',
      endpoints: {
        oauthTokenEndpoint: `${this.base}/token`,
        // URI templates (RFC 6570).
        search: `${this.base}/search{?q,lang,from,until}`,
        actor: `${this.base}/actors/{name}`,
        accounts: `${this.base}/accounts{?id*}`,
        object: `${this.base}/objects/{id}`,
        shortLinks: `${this.base}/l/`,
      },
      limits: { pageSize: PAGE, requests, windowSeconds, mostFound: MOST_FOUND, daysBack: DAYS_BACK },
    };
  }

  private search(held: Held, query: URLSearchParams): ServiceAnswer {
    let parsed;
    try {
      parsed = parseQuery(query.get('q') ?? '');
    } catch (error) {
      if (error instanceof QueryError)
        return problemAnswer(400, `The search is not understood: ${error.message}.`);
      throw error;
    }
    const from = Math.max(Number(query.get('from') ?? 0), NOW - DAYS_BACK * DAY);
    const until = Number(query.get('until') ?? Infinity);
    const language = query.get('lang') ?? '';
    const found = held.posts.filter((post) => {
      const time = Date.parse(post.created_at);
      if (time < from || time >= until || post.kind === 'repost') return false;
      if (language !== '' && post.lang !== language) return false;
      return parsed === null || matches(parsed, { text: post.text, author: post.author });
    });
    const newest = found.slice(-MOST_FOUND).reverse();
    return this.page('/search', query, { items: newest.map((post) => held.note(post)), moves: true });
  }

  /** A page of a collection; while one reads on, things come in at the beginning and push others to the next page. */
  private page(path: string, query: URLSearchParams, { items, moves }: Collection): ServiceAnswer {
    const after = Number(query.get('after') ?? 0);
    const pushed = moves && after > 0 ? Math.min(2, this.pagesGiven % 3) : 0;
    this.pagesGiven++;
    const start = Math.max(0, after - pushed);
    const end = Math.min(items.length, start + PAGE);
    const next = new URLSearchParams(query);
    next.set('after', String(end));
    const nextPage = end < items.length ? `${this.base}${path}?${next}` : undefined;
    return jsonAnswer(
      {
        '@context': CONTEXT,
        type: 'OrderedCollectionPage',
        totalItems: items.length,
        orderedItems: items.slice(start, end),
        ...(nextPage ? { next: nextPage } : {}),
      },
      TYPE,
      200,
      nextPage ? { link: `<${nextPage}>; rel="next"` } : {},
    );
  }

  private expand(code: string): ServiceAnswer {
    const link = (this.held ??= new Held(this.base)).longLink(code);
    if (link === null) return problemAnswer(404, 'There is nothing here.');
    return { status: 301, headers: { location: link }, body: '' };
  }
}

/** An account, with what its profile says where it has one. */
type Known = Pick<DemoFollower, 'handle' | 'name' | 'followers'> & Partial<DemoFollower>;

/** What the hub holds, by name and id. */
class Held {
  readonly posts: readonly DemoPost[] = makePosts().posts;
  private readonly videos: DemoVideos = makeVideos();
  private readonly lists: readonly FollowerList[] = makeFollowers();
  private readonly accounts = new Map<string, Known>();
  private readonly answers = new Map<string, (DemoPost | DemoComment)[]>();
  private readonly byId = new Map<string, DemoPost | DemoComment>();
  private readonly links: string[] = [];
  private readonly linkCode = new Map<string, string>();

  constructor(private readonly base: string) {
    for (const { author, author_name, followers } of this.posts)
      this.accounts.set(author, { handle: author, name: author_name, followers });
    for (const { followed, followers } of this.lists) {
      this.accounts.set(followed, { handle: followed, name: followed, followers: followers.length });
      for (const follower of followers) this.accounts.set(follower.handle, follower);
    }
    for (const post of this.posts) {
      this.byId.set(post.id, post);
      if (post.in_reply_to && post.kind !== 'repost') this.addAnswer(post.in_reply_to, post);
    }
    for (const comment of this.videos.comments) this.byId.set(comment.comment_id, comment);
    for (const comment of this.videos.comments)
      this.addAnswer(comment.parent_id || comment.video_id, comment);
  }

  actor(name: string): object | null {
    const account = this.accounts.get(handleKey(name));
    if (!account) return null;
    const at = `${this.base}/actors/${account.handle}`;
    const more =
      account.joined !== undefined
        ? {
            summary: account.description,
            published: `${account.joined}T00:00:00Z`,
            ...(account.location ? { location: { type: 'Place', name: account.location } } : {}),
            following: { type: 'Collection', totalItems: account.following },
          }
        : {};
    return {
      '@context': CONTEXT,
      type: 'Person',
      id: actorId(account.handle),
      preferredUsername: account.handle,
      name: account.name,
      url: at,
      ...more,
      followers: { type: 'OrderedCollection', id: `${at}/followers`, totalItems: account.followers },
      outbox: { type: 'OrderedCollection', id: `${at}/outbox` },
    };
  }

  postsBy(name: string): object[] {
    return this.posts.filter(({ author }) => author === handleKey(name)).map((post) => this.note(post));
  }

  /** Addresses of the followers of an account. */
  followersOf(name: string): string[] {
    const list = this.lists.find(({ followed }) => followed === handleKey(name));
    return list ? list.followers.map(({ handle }) => actorId(handle)) : [];
  }

  object(id: string): object | null {
    const video = this.videos.videos.find(({ video_id }) => video_id === id);
    if (video)
      return {
        type: 'Video',
        id: `https://reelcove.example/v/${video.video_id}`,
        name: video.title,
        content: video.description,
        published: video.published_at,
        attributedTo: {
          type: 'Group',
          id: `https://reelcove.example/@${video.channel}`,
          name: video.channel_name,
        },
        views: video.views,
        likes: { type: 'Collection', totalItems: video.likes },
        replies: { type: 'OrderedCollection', id: `${this.base}/objects/${id}/replies` },
      };
    const found = this.byId.get(id);
    return found ? this.note(found) : null;
  }

  answersTo(id: string, byRating: boolean): object[] {
    const answers = [...(this.answers.get(id) ?? [])];
    if (byRating) answers.sort((a, b) => b.likes - a.likes);
    return answers.map((answer) => this.note(answer));
  }

  /** A post or comment as a Note; some were deleted since. */
  note(post: DemoPost | DemoComment): object {
    if ('comment_id' in post) return this.commentNote(post);
    const id = post.url;
    if (Number(post.id.replace(/\D/g, '')) % 61 === 0)
      return { type: 'Tombstone', id, formerType: 'Note', deleted: new Date(NOW).toISOString() };
    const spans = findSpans(post.text);
    return {
      type: 'Note',
      id,
      attributedTo: {
        type: 'Person',
        id: actorId(post.author),
        preferredUsername: post.author,
        name: post.author_name,
      },
      published: post.created_at,
      contentMap: { [post.lang]: this.html(post.text) },
      ...(post.in_reply_to ? { inReplyTo: this.parentOf(post) } : {}),
      tag: spans.flatMap(({ what, key }) => {
        if (what === 'mention') return [{ type: 'Mention', href: actorId(key), name: `@${key}` }];
        return what === 'hashtag' ? [{ type: 'Hashtag', name: `#${key}` }] : [];
      }),
      likes: { type: 'Collection', totalItems: post.likes },
      replies: {
        type: 'OrderedCollection',
        id: `${this.base}/objects/${post.id}/replies`,
        totalItems: this.answers.get(post.id)?.length ?? 0,
      },
    };
  }

  longLink(code: string): string | null {
    return this.links[parseInt(code, 36) - 1000] ?? null;
  }

  private commentNote(comment: DemoComment): object {
    const base = 'https://reelcove.example';
    return {
      type: 'Note',
      id: `${base}/c/${comment.comment_id}`,
      attributedTo: { type: 'Person', id: `${base}/@${comment.author}`, name: comment.author_name },
      published: comment.published_at,
      content: this.html(comment.text),
      inReplyTo: comment.parent_id ? `${base}/c/${comment.parent_id}` : `${base}/v/${comment.video_id}`,
      likes: { type: 'Collection', totalItems: comment.likes },
      replies: {
        type: 'OrderedCollection',
        id: `${this.base}/objects/${comment.comment_id}/replies`,
        totalItems: this.answers.get(comment.comment_id)?.length ?? 0,
      },
    };
  }

  private parentOf(post: DemoPost): object | string {
    const parent = this.byId.get(post.in_reply_to);
    if (!parent || !('url' in parent)) return `https://tidepost.example/p/${post.in_reply_to}`;
    return { type: 'Note', id: parent.url, attributedTo: actorId(parent.author) };
  }

  /** Links become short ones of the hub itself. */
  private html(text: string): string {
    let at = 0;
    let html = '';
    const escape = (part: string): string =>
      part.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/\n/g, '<br>');
    for (const { what, start, end, key } of findSpans(text)) {
      if (what !== 'link') continue;
      html += `${escape(text.slice(at, start))}<a href="${this.shortLink(key)}">${this.shortLink(key)}</a>`;
      at = end;
    }
    return `<p>${html}${escape(text.slice(at))}</p>`;
  }

  private shortLink(link: string): string {
    let code = this.linkCode.get(link);
    if (code === undefined) {
      code = (this.links.push(link) - 1 + 1000).toString(36);
      this.linkCode.set(link, code);
    }
    return `${this.base}/l/${code}`;
  }

  private addAnswer(parent: string, answer: DemoPost | DemoComment): void {
    const answers = this.answers.get(parent);
    if (answers) answers.push(answer);
    else this.answers.set(parent, [answer]);
  }
}

function actorId(handle: string): string {
  return `https://tidepost.example/@${handle.split('@')[0]}`;
}

/** "ann" of "https://tidepost.example/@ann", "@ann@tidepost.example" or "ann". */
function nameOf(id: string): string {
  return /^https?:\/\/[^/]+\/@?([^/?#]+)/.exec(id)?.[1] ?? id.replace(/^@/, '').split('@')[0];
}

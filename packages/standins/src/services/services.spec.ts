import { SimulatedServices } from './services';
import type { ServiceAnswer } from './exchange';
import type { GateSettings } from './gate';

const ORIGIN = 'http://127.0.0.1:9';
/** Credentials in Basic form. */
const basic = (client: string, secret: string): string =>
  `Basic ${Buffer.from([client, secret].map(encodeURIComponent).join(':')).toString('base64')}`;

class Visitor {
  now = 0;
  private token = '';
  private readonly services: SimulatedServices;

  constructor(settings: Partial<GateSettings> = {}) {
    this.services = new SimulatedServices(ORIGIN, { faultEvery: 0, clock: () => this.now, ...settings });
  }

  ask(
    path: string,
    init: { method?: string; headers?: Record<string, string>; body?: string } = {},
  ): ServiceAnswer {
    return this.services.answer({
      method: init.method ?? 'GET',
      url: new URL(path, ORIGIN),
      headers: { authorization: `Bearer ${this.token}`, ...init.headers },
      body: init.body ?? '',
    });
  }

  enter(service: 'hub' | 'mail', secret = 'amber-lamp'): ServiceAnswer {
    const answer = this.ask(`/${service}/token`, {
      method: 'POST',
      headers: { authorization: basic('researcher', secret) },
      body: 'grant_type=client_credentials',
    });
    this.token = (JSON.parse(answer.body) as { access_token?: string }).access_token ?? '';
    return answer;
  }

  read<T>(path: string): T {
    const answer = this.ask(path);
    if (answer.status !== 200) throw new Error(String(answer.status));
    return JSON.parse(answer.body) as T;
  }

  call<T>(name: string, given: object): T {
    const answer = this.ask('/mail/api', {
      method: 'POST',
      body: JSON.stringify({ using: [], methodCalls: [[name, given, 'a']] }),
    });
    const [method, result] = (JSON.parse(answer.body) as { methodResponses: [string, T][] })
      .methodResponses[0];
    return method === 'error' ? ({ error: (result as { type: string }).type } as T) : result;
  }
}

interface Page {
  totalItems: number;
  orderedItems: { id: string; type: string }[];
  next?: string;
}

describe('the door of a service', () => {
  it('gives a token for client credentials only (RFC 6749, section 4.4)', () => {
    const visitor = new Visitor();
    expect(visitor.enter('hub', 'wrong').status).toBe(401);
    expect(visitor.ask('/hub/search?q=lamps').status).toBe(401);
    expect(visitor.enter('hub').status).toBe(200);
    expect(visitor.ask('/hub/search?q=lamps').status).toBe(200);
  });

  it('says where the token endpoint is (RFC 8414)', () => {
    const { token_endpoint } = new Visitor().read<{ token_endpoint: string }>(
      '/.well-known/oauth-authorization-server/mail/session',
    );
    expect(token_endpoint).toBe(`${ORIGIN}/mail/token`);
  });

  it('turns away beyond the budget, and says how long to wait (RFC 6585, RFC 9110)', () => {
    const visitor = new Visitor({ requests: 2, windowSeconds: 10 });
    visitor.enter('hub');
    visitor.read('/hub/search?q=a');
    visitor.now = 4000;
    visitor.read('/hub/search?q=a');
    const turned = visitor.ask('/hub/search?q=a');
    expect([turned.status, turned.headers['retry-after']]).toEqual([429, '6']);
    visitor.now = 10_000;
    expect(visitor.ask('/hub/search?q=a').status).toBe(200);
  });

  it('lets tokens wear out, and fails now and then', () => {
    const visitor = new Visitor({ tokenRequests: 3, faultEvery: 2 });
    visitor.enter('hub');
    const statuses = [1, 2, 3, 4].map(() => visitor.ask('/hub/search?q=a').status);
    expect(statuses).toEqual([200, 503, 200, 401]);
  });
});

describe('the hub', () => {
  const visitor = new Visitor({ requests: 10_000, tokenRequests: 10_000 });
  beforeAll(() => void visitor.enter('hub'));

  it('finds what is asked for within a week, page by page; pages move while one reads', () => {
    const ids: string[] = [];
    let page = visitor.read<Page>('/hub/search?q=%23LateLampPlan');
    const { totalItems } = page;
    for (;;) {
      ids.push(...page.orderedItems.map(({ id }) => id));
      if (!page.next) break;
      page = visitor.read<Page>(page.next.slice(ORIGIN.length));
    }
    expect(totalItems).toBeLessThanOrEqual(400);
    expect(new Set(ids).size).toBe(totalItems);
    expect(ids.length).toBeGreaterThan(totalItems);
  });

  it('gives deleted posts as Tombstones, and short links that it expands', () => {
    const { orderedItems } = visitor.read<
      Page & { orderedItems: { content?: string; contentMap?: Record<string, string> }[] }
    >('/hub/search?q=*');
    const pages = JSON.stringify(orderedItems);
    const all = JSON.stringify(
      ['lamps', 'the', 'a', 'is'].map((word) => visitor.read<Page>(`/hub/search?q=${word}`).orderedItems),
    );
    expect(`${pages}${all}`).toContain('"Tombstone"');
    const code = /\/hub\/l\/(\w+)/.exec(all)![1];
    const expanded = visitor.ask(`/hub/l/${code}`);
    expect(expanded.status).toBe(301);
    expect(expanded.headers['location']).toMatch(/^https:\/\/[\w.-]+\.example\//);
  });

  it('gives comments by rating, followers as addresses, and accounts in batches', () => {
    const comments = visitor
      .read<{ orderedItems: { likes: { totalItems: number } }[] }>('/hub/objects/rc1002/replies?order=rating')
      .orderedItems.map(({ likes }) => likes.totalItems);
    expect([...comments].sort((a, b) => b - a)).toEqual(comments);
    const followers = visitor.read<{ totalItems: number; orderedItems: string[] }>(
      '/hub/actors/marsh_records/followers',
    );
    expect(followers.totalItems).toBe(200);
    const ids = followers.orderedItems.slice(0, 3).map((id) => `id=${encodeURIComponent(id)}`);
    expect(visitor.read<{ items: { type: string }[] }>(`/hub/accounts?${ids.join('&')}`).items).toHaveLength(
      3,
    );
    expect(visitor.ask('/hub/actors/nobody_here').status).toBe(404);
  });
});

describe('the mail service', () => {
  const visitor = new Visitor({ requests: 10_000, tokenRequests: 10_000 });
  beforeAll(() => void visitor.enter('mail'));

  it('tells its session, its mailboxes and its emails (RFC 8620, RFC 8621)', () => {
    expect(visitor.read<{ apiUrl: string }>('/mail/session').apiUrl).toBe(`${ORIGIN}/mail/api`);
    const { list } = visitor.call<{ list: { id: string; totalEmails: number }[] }>('Mailbox/get', {});
    expect(list.reduce((sum, { totalEmails }) => sum + totalEmails, 0)).toBe(1500);
    const { ids, total } = visitor.call<{ ids: string[]; total: number }>('Email/query', {
      filter: { inMailbox: list[1].id },
      limit: 5,
    });
    expect([ids.length, total]).toEqual([5, list[1].totalEmails]);
    const { list: emails } = visitor.call<{ list: { messageId: string[] }[] }>('Email/get', { ids });
    expect(emails).toHaveLength(5);
  });

  it('refuses too many at once, and tells what came since', () => {
    const { ids } = visitor.call<{ ids: string[] }>('Email/query', { limit: 41 });
    expect(visitor.call<{ error: string }>('Email/get', { ids }).error).toBe('requestTooLarge');
    const changes = visitor.call<{ created: string[]; hasMoreChanges: boolean }>('Email/changes', {
      sinceState: '1490',
    });
    expect([changes.created.length, changes.hasMoreChanges]).toEqual([10, false]);
    expect(visitor.call<{ error: string }>('Email/changes', { sinceState: 'x' }).error).toBe(
      'cannotCalculateChanges',
    );
  });
});

import { setTimeout as sleep } from 'node:timers/promises';

/** The means to enter a service. */
export interface Access {
  readonly clientId: string;
  readonly secret: string;
}

/** What asking a service has cost. */
interface ClientCounts {
  requests: number;
  limited: number;
  faults: number;
  tokens: number;
  waitedSeconds: number;
}

/** A service that cannot be used as things are, in a sentence for the person who can act. */
export class ServiceError extends Error {
  constructor(
    message: string,
    /** Whether it is worth trying again later without a change. */
    readonly passing: boolean,
  ) {
    super(message);
  }
}

const LARGEST_ANSWER = 32 * 1024 ** 2;
const MOST_TRIES = 6;
const MOST_REDIRECTS = 5;
const TIMEOUT = 30_000;
/** A longer wait than this is not asked of anybody without a word. */
const LONGEST_WAIT = 3600;

/**
 * Speaks with one service over HTTP: gets a token by client credentials (RFC 6749, 6750), and a new one when it has expired; waits as a
 * 429 or 503 says (RFC 6585, RFC 9110, Retry-After); tries again after faults. Only addresses of the service itself are opened.
 */
export class ServiceClient {
  readonly counts: ClientCounts = { requests: 0, limited: 0, faults: 0, tokens: 0, waitedSeconds: 0 };
  private token: string | null = null;
  readonly base: URL;

  /**
   * @param stop ends waiting and asking; requests then throw its reason
   * @param onWait is told until when the budget is waited for, and null when asking goes on
   * @param pace how long the waits between tries are, in milliseconds for the first
   */
  constructor(
    address: string,
    private readonly access: Access,
    private readonly stop: AbortSignal,
    private readonly onWait: (until: number | null) => Promise<void>,
    private readonly pace = 500,
  ) {
    this.base = new URL(address);
  }

  /** A JSON document of the service; null when there is none (404, 410). */
  getJson(url: string): Promise<unknown> {
    return this.json(url, { headers: { accept: 'application/activity+json, application/json' } });
  }

  postJson(url: string, body: unknown): Promise<unknown> {
    return this.json(url, {
      method: 'POST',
      headers: { accept: 'application/json', 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  }

  /** Where a short link of the service leads; null when it leads nowhere. It is asked for, not followed. */
  async expand(link: string): Promise<string | null> {
    const response = await this.patiently(link, { method: 'HEAD' });
    return response.status >= 300 && response.status < 400 ? response.headers.get('location') : null;
  }

  /** Whether an address is one of the service itself. */
  isOwn(address: string): boolean {
    try {
      return new URL(address).origin === this.base.origin;
    } catch {
      return false;
    }
  }

  private async json(url: string, init: RequestInit): Promise<unknown> {
    let target = url;
    for (let i = 0; i <= MOST_REDIRECTS; i++) {
      const response = await this.patiently(target, init);
      if (response.status === 404 || response.status === 410) return null;
      const location = response.headers.get('location');
      if (response.status >= 300 && response.status < 400 && location) {
        target = new URL(location, target).href;
        continue;
      }
      if (!response.ok) throw new ServiceError(await refusal(response), false);
      return parse(await response.text());
    }
    throw new ServiceError(
      'The service sends its readers from one address to the next without an end.',
      false,
    );
  }

  /** One request that goes through in the end: with a valid token, after the waits that the service asks for. */
  private async patiently(url: string, init: RequestInit): Promise<Response> {
    let faults = 0;
    let refused = 0;
    for (;;) {
      this.stop.throwIfAborted();
      const response = await this.ask(url, init).catch((error: unknown) => {
        if (error instanceof ServiceError) throw error;
        return null;
      });
      if (response?.status === 401) {
        if (++refused > 2) throw new ServiceError('The service does not accept its own token.', false);
        this.token = null;
        await response.body?.cancel();
        continue;
      }
      if (response?.status === 429) {
        this.counts.limited++;
        await this.wait(retryAfter(response) ?? 15, true);
        continue;
      }
      if (response && response.status < 500) return response;
      this.counts.faults++;
      if (++faults >= MOST_TRIES)
        throw new ServiceError(
          response
            ? `The service fails again and again (it answers ${response.status}). What came so far is kept; resume when it works again.`
            : 'The service does not answer. What came so far is kept; resume when it can be reached again.',
          true,
        );
      const asked = response ? retryAfter(response) : null;
      await this.wait(asked ?? (this.pace / 1000) * 2 ** (faults - 1), false);
    }
  }

  private async ask(url: string, init: RequestInit): Promise<Response> {
    if (!this.isOwn(url))
      throw new ServiceError(
        `The service leads to another address (${hostOf(url)}), which is not opened.`,
        false,
      );
    this.token ??= await this.newToken();
    this.counts.requests++;
    const headers = { ...(init.headers as Record<string, string>), authorization: `Bearer ${this.token}` };
    const response = await fetch(url, {
      ...init,
      headers,
      redirect: 'manual',
      signal: AbortSignal.any([this.stop, AbortSignal.timeout(TIMEOUT)]),
    });
    if (Number(response.headers.get('content-length') ?? 0) > LARGEST_ANSWER)
      throw new ServiceError('The service sent an answer larger than 32 MB, which was not read.', false);
    return response;
  }

  /** A token by client credentials (RFC 6749, section 4.4); its endpoint by RFC 8414. */
  private async newToken(): Promise<string> {
    const { origin, pathname } = this.base;
    const known = await this.bare(
      `${origin}/.well-known/oauth-authorization-server${pathname.replace(/\/$/, '')}`,
    );
    const metadata: unknown = known?.ok ? parse(await known.text()) : null;
    const endpoint = (metadata as { token_endpoint?: unknown } | null)?.token_endpoint;
    if (typeof endpoint !== 'string' || !this.isOwn(endpoint))
      throw new ServiceError('The service does not say where it gives tokens (RFC 8414).', known === null);
    const pair = [this.access.clientId, this.access.secret].map(encodeURIComponent).join(':');
    const response = await this.bare(endpoint, {
      method: 'POST',
      headers: {
        authorization: `Basic ${Buffer.from(pair).toString('base64')}`,
        'content-type': 'application/x-www-form-urlencoded',
      },
      body: 'grant_type=client_credentials',
    });
    if (!response) throw new ServiceError('The service does not answer. Is its address right?', true);
    const answer = parse(await response.text()) as { access_token?: unknown } | null;
    if (!response.ok || typeof answer?.access_token !== 'string')
      throw new ServiceError(
        'The service does not accept this client id and secret. Please check both.',
        false,
      );
    this.counts.tokens++;
    return answer.access_token;
  }

  /** A request without a token; null when nobody answers. */
  private async bare(url: string, init: RequestInit = {}): Promise<Response | null> {
    const signal = AbortSignal.any([this.stop, AbortSignal.timeout(TIMEOUT)]);
    for (let tries = 0; tries < 3; tries++) {
      const response = await fetch(url, { ...init, redirect: 'manual', signal }).catch(() => null);
      this.stop.throwIfAborted();
      if (response && response.status < 500) return response;
      await sleep(this.pace * 2 ** tries, undefined, { signal: this.stop });
    }
    return null;
  }

  private async wait(seconds: number, isBudget: boolean): Promise<void> {
    if (seconds > LONGEST_WAIT)
      throw new ServiceError(
        `The service asks to wait ${Math.round(seconds / 60)} minutes. What came so far is kept; resume later.`,
        true,
      );
    if (isBudget) await this.onWait(Date.now() + seconds * 1000);
    this.counts.waitedSeconds += seconds;
    await sleep(seconds * 1000, undefined, { signal: this.stop });
    if (isBudget) await this.onWait(null);
  }
}

/** Seconds to wait, as a number or as a date says them (RFC 9110, section 10.2.3); null when nothing is said. */
export function retryAfter(response: Pick<Response, 'headers'>, now = Date.now()): number | null {
  const said = response.headers.get('retry-after')?.trim();
  if (!said) return null;
  if (/^\d+$/.test(said)) return Number(said);
  const until = Date.parse(said);
  return Number.isNaN(until) ? null : Math.max(0, (until - now) / 1000);
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch {
    throw new ServiceError('The service sent something that is no JSON. Is its address right?', false);
  }
}

async function refusal(response: Response): Promise<string> {
  const text = await response.text();
  let title = '';
  try {
    const problem = JSON.parse(text) as { title?: unknown; detail?: unknown };
    title = [problem.title, problem.detail].filter((part) => typeof part === 'string').join(' ');
  } catch {
    // Its words are not needed.
  }
  return `The service refuses this (${response.status}). ${title.slice(0, 300)}`.trim();
}

function hostOf(url: string): string {
  try {
    return new URL(url).host;
  } catch {
    return 'unreadable';
  }
}

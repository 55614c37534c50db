import { makeEmails, type DemoEmail } from '../sallowmere/emails';
import {
  jsonAnswer,
  problemAnswer,
  type ServiceAnswer,
  type ServiceRequest,
  type SimulatedService,
} from './exchange';
import { Gate, type GateSettings } from './gate';

const CORE = 'urn:ietf:params:jmap:core';
const MAIL = 'urn:ietf:params:jmap:mail';
const ACCOUNT = 'council';
const MOST_IN_GET = 40;
const LISTS = 'lists';
const INBOX = 'inbox';

type Arguments = Readonly<Record<string, unknown>>;
type Call = readonly [name: string, given: Arguments, id: string];

/** A mail service that speaks JMAP (RFC 8620, RFC 8621), with the emails of the demo's story. */
export class SimulatedMail implements SimulatedService {
  private readonly gate: Gate;
  private emails: readonly DemoEmail[] = [];
  private readonly byId = new Map<string, DemoEmail>();

  /** @param base its address, without a slash at the end */
  constructor(
    private readonly base: string,
    settings: GateSettings,
  ) {
    this.gate = new Gate(settings);
  }

  answer(request: ServiceRequest): ServiceAnswer {
    const path = request.url.pathname.slice(new URL(this.base).pathname.length);
    if (path === '/token') return this.gate.giveToken(request);
    const turned = this.gate.turnAway(request);
    if (turned) return turned;
    if (path === '/session') return jsonAnswer(this.session());
    if (path === '/api' && request.method === 'POST') return this.call(request.body);
    return problemAnswer(404, 'There is nothing here.');
  }

  /** The session object (RFC 8620, section 2). */
  private session(): object {
    return {
      capabilities: {
        [CORE]: {
          maxSizeUpload: 0,
          maxConcurrentUpload: 1,
          maxSizeRequest: 100_000,
          maxConcurrentRequests: 2,
          maxCallsInRequest: 4,
          maxObjectsInGet: MOST_IN_GET,
          maxObjectsInSet: 0,
          collationAlgorithms: [],
        },
        [MAIL]: {},
      },
      accounts: {
        [ACCOUNT]: {
          name: 'Council of Sallowmere (simulated)',
          isPersonal: false,
          isReadOnly: true,
          accountCapabilities: { [MAIL]: {} },
        },
      },
      primaryAccounts: { [MAIL]: ACCOUNT },
      username: 'researcher',
      apiUrl: `${this.base}/api`,
      downloadUrl: '',
      uploadUrl: '',
      eventSourceUrl: '',
      state: 's1',
    };
  }

  private call(body: string): ServiceAnswer {
    let calls: readonly Call[];
    try {
      calls = (JSON.parse(body) as { methodCalls: Call[] }).methodCalls;
    } catch {
      return problemAnswer(400, 'The request is no JSON.');
    }
    const methodResponses = calls.map(([name, given, id]) => this.method(name, given, id));
    return jsonAnswer({ methodResponses, sessionState: 's1' });
  }

  private method(name: string, given: Arguments, id: string): Call {
    this.load();
    switch (name) {
      case 'Mailbox/get':
        return [name, { accountId: ACCOUNT, state: this.state(), list: this.mailboxes(), notFound: [] }, id];
      case 'Email/query':
        return this.query(given, id);
      case 'Email/get': {
        const ids = (given['ids'] ?? []) as string[];
        if (ids.length > MOST_IN_GET) return ['error', { type: 'requestTooLarge' }, id];
        const list = ids.flatMap((one) => this.byId.get(one) ?? []).map((email) => toJmap(email));
        const notFound = ids.filter((one) => !this.byId.has(one));
        return [name, { accountId: ACCOUNT, state: this.state(), list, notFound }, id];
      }
      case 'Email/changes':
        return this.changes(given, id);
      default:
        return ['error', { type: 'unknownMethod' }, id];
    }
  }

  private query({ filter, position, limit }: Arguments, id: string): Call {
    const wanted = (filter ?? {}) as { inMailbox?: string; text?: string; after?: string; before?: string };
    const words = (wanted.text ?? '')
      .toLowerCase()
      .split(/\s+/)
      .filter((word) => word !== '');
    const found = this.emails.filter((email) => {
      if (wanted.inMailbox && mailboxOf(email) !== wanted.inMailbox) return false;
      if (wanted.after && email.time < Date.parse(wanted.after)) return false;
      if (wanted.before && email.time >= Date.parse(wanted.before)) return false;
      const text = `${email.subject} ${email.text} ${email.from.name}`.toLowerCase();
      return words.every((word) => text.includes(word));
    });
    const start = typeof position === 'number' ? position : 0;
    const ids = found.slice(start, start + (typeof limit === 'number' ? limit : MOST_IN_GET)).map(jmapId);
    return [
      'Email/query',
      {
        accountId: ACCOUNT,
        queryState: this.state(),
        canCalculateChanges: false,
        position: start,
        ids,
        total: found.length,
      },
      id,
    ];
  }

  private changes({ sinceState, maxChanges }: Arguments, id: string): Call {
    const since = Number(sinceState);
    if (!Number.isInteger(since) || since > this.emails.length)
      return ['error', { type: 'cannotCalculateChanges' }, id];
    const until = Math.min(
      this.emails.length,
      since + (typeof maxChanges === 'number' ? maxChanges : MOST_IN_GET),
    );
    return [
      'Email/changes',
      {
        accountId: ACCOUNT,
        oldState: String(since),
        newState: String(until),
        hasMoreChanges: until < this.emails.length,
        created: this.emails.slice(since, until).map(jmapId),
        updated: [],
        destroyed: [],
      },
      id,
    ];
  }

  private mailboxes(): object[] {
    const count = (box: string): number => this.emails.filter((email) => mailboxOf(email) === box).length;
    return [
      { id: INBOX, name: 'Council inbox', role: 'inbox', totalEmails: count(INBOX) },
      { id: LISTS, name: 'Lamp talk (mailing list)', role: null, totalEmails: count(LISTS) },
    ];
  }

  /** The number of emails that there are; it stands for the state. */
  private state(): string {
    return String(this.emails.length);
  }

  private load(): void {
    if (this.emails.length > 0) return;
    this.emails = makeEmails().emails;
    for (const email of this.emails) this.byId.set(jmapId(email), email);
  }
}

function mailboxOf({ toList }: DemoEmail): string {
  return toList ? LISTS : INBOX;
}

function jmapId({ id }: DemoEmail): string {
  return `M${id.replace(/[^A-Za-z0-9_-]/g, '-')}`;
}

/** An Email object (RFC 8621, section 4). */
function toJmap(email: DemoEmail): object {
  const quoted = email.answers ? `\n\n${email.answers.text.replace(/^/gm, '> ')}` : '';
  const chain: string[] = [];
  for (let one = email.answers; one; one = one.answers) chain.unshift(one.id);
  return {
    id: jmapId(email),
    mailboxIds: { [mailboxOf(email)]: true },
    messageId: [email.id],
    inReplyTo: email.answers ? [email.answers.id] : null,
    references: chain.length > 0 ? chain : null,
    from: [{ name: email.from.name, email: email.from.address }],
    to: email.to.map((address) => ({ name: null, email: address })),
    cc: email.cc.length > 0 ? email.cc.map((address) => ({ name: null, email: address })) : null,
    bcc: null,
    subject: email.subject,
    sentAt: new Date(email.time).toISOString().replace('.000Z', '+00:00'),
    receivedAt: new Date(email.time).toISOString(),
    textBody: [{ partId: '1', type: 'text/plain' }],
    bodyValues: { 1: { value: `${email.text}${quoted}\n-- \n${email.from.name}\n`, isTruncated: false } },
    attachments: [],
    ...(email.toList ? { 'header:List-Id:asText': 'Lamp talk <lamp-talk.lists.sallowmere.example>' } : {}),
  };
}

import { jsonAnswer, problemAnswer, type ServiceAnswer, type ServiceRequest } from './exchange';

/** How a simulated service limits those who ask. */
export interface GateSettings {
  readonly clientId: string;
  readonly secret: string;
  /** Requests in each window of so many seconds. */
  readonly requests: number;
  readonly windowSeconds: number;
  /** Requests that one token is good for. */
  readonly tokenRequests: number;
  /** Every so manieth request fails with 503; 0 for none. */
  readonly faultEvery: number;
  /** Milliseconds since 1970. */
  readonly clock: () => number;
}

export const USUAL_GATE: Omit<GateSettings, 'clock'> = {
  clientId: 'researcher',
  secret: 'amber-lamp',
  requests: 45,
  windowSeconds: 20,
  tokenRequests: 70,
  faultEvery: 23,
};

/**
 * The door of a service: client credentials give a bearer token (RFC 6749, section 4.4; RFC 6750) that wears out, requests beyond the
 * budget of a window are answered with 429 and Retry-After (RFC 6585, RFC 9110), and now and then one fails.
 */
export class Gate {
  private token = '';
  private tokenLeft = 0;
  private issued = 0;
  private windowStart = -Infinity;
  private inWindow = 0;
  private asked = 0;

  constructor(private readonly settings: GateSettings) {}

  /** The answer of the token endpoint. */
  giveToken({ headers, body }: ServiceRequest): ServiceAnswer {
    const form = new URLSearchParams(body);
    const { clientId, secret, tokenRequests } = this.settings;
    const known = [clientId, secret].map(encodeURIComponent).join(':');
    const given = /^Basic (.+)$/.exec(headers['authorization'] ?? '')?.[1] ?? '';
    if (form.get('grant_type') !== 'client_credentials')
      return jsonAnswer({ error: 'unsupported_grant_type' }, 'application/json', 400);
    if (decode(given) !== known)
      return jsonAnswer({ error: 'invalid_client' }, 'application/json', 401, {
        'www-authenticate': 'Basic realm="token"',
      });
    this.issued++;
    this.token = `t${this.issued}-${(this.issued * 2654435761) % 4294967296}`;
    this.tokenLeft = tokenRequests;
    return jsonAnswer(
      { access_token: this.token, token_type: 'Bearer', expires_in: 3600 },
      'application/json',
      200,
      {
        'cache-control': 'no-store',
      },
    );
  }

  /** Null when the request may pass; otherwise the answer that turns it away. */
  turnAway({ headers }: ServiceRequest): ServiceAnswer | null {
    const { requests, windowSeconds, faultEvery, clock } = this.settings;
    if (this.tokenLeft <= 0 || headers['authorization'] !== `Bearer ${this.token}`)
      return problemAnswer(401, 'The token is wrong or has expired.', {
        'www-authenticate': 'Bearer error="invalid_token"',
      });
    const now = clock();
    if (now - this.windowStart >= windowSeconds * 1000) {
      this.windowStart = now;
      this.inWindow = 0;
    }
    if (this.inWindow >= requests) {
      const wait = Math.max(1, Math.ceil((this.windowStart + windowSeconds * 1000 - now) / 1000));
      return problemAnswer(429, 'Too many requests.', { 'retry-after': String(wait) });
    }
    this.inWindow++;
    this.tokenLeft--;
    this.asked++;
    if (faultEvery > 0 && this.asked % faultEvery === 0) return problemAnswer(503, 'Busy for a moment.');
    return null;
  }
}

/** Base64 of ASCII characters, without a browser or Node. */
function decode(base64: string): string {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  let bits = '';
  for (const letter of base64.replace(/=+$/, ''))
    bits += letters.indexOf(letter).toString(2).padStart(6, '0');
  return (bits.match(/.{8}/g) ?? []).map((byte) => String.fromCharCode(parseInt(byte, 2))).join('');
}

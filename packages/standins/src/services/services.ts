import {
  problemAnswer,
  jsonAnswer,
  type ServiceAnswer,
  type ServiceRequest,
  type SimulatedService,
} from './exchange';
import { USUAL_GATE, type GateSettings } from './gate';
import { SimulatedHub } from './hub';
import { SimulatedMail } from './mail';

/** All simulated services under one address, each under a path of its own. */
export class SimulatedServices implements SimulatedService {
  private readonly services: Readonly<Record<string, SimulatedService>>;

  /** @param origin "http://127.0.0.1:4621" */
  constructor(
    private readonly origin: string,
    settings: Partial<GateSettings> = {},
  ) {
    const gate: GateSettings = { ...USUAL_GATE, clock: () => Date.now(), ...settings };
    this.services = {
      hub: new SimulatedHub(`${origin}/hub`, gate),
      mail: new SimulatedMail(`${origin}/mail`, gate),
    };
  }

  answer(request: ServiceRequest): ServiceAnswer {
    const { pathname } = request.url;
    // Where the token endpoint is (RFC 8414, section 3.1: the path of the issuer stands at the end).
    const metadata = /^\/\.well-known\/oauth-authorization-server\/(\w+)/.exec(pathname);
    if (metadata && metadata[1] in this.services) {
      const issuer = `${this.origin}/${metadata[1]}`;
      return jsonAnswer({
        issuer,
        token_endpoint: `${issuer}/token`,
        grant_types_supported: ['client_credentials'],
        response_types_supported: [],
      });
    }
    const service = this.services[pathname.split('/')[1]] as SimulatedService | undefined;
    return service?.answer(request) ?? problemAnswer(404, 'There is nothing here.');
  }
}

/** What the application offers beside services that the researcher names. */
export const SIMULATED: readonly { kind: 'hub' | 'mail'; name: string; path: string }[] = [
  { kind: 'hub', name: 'Tidepost and Reelcove (simulated)', path: '/hub' },
  { kind: 'mail', name: 'Council mail (simulated)', path: '/mail/session' },
];

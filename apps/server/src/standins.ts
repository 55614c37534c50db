import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import {
  problemAnswer,
  SIMULATED,
  SimulatedServices,
  USUAL_GATE,
  type GateSettings,
  type ServiceAnswer,
} from '@pebble/standins';
import type { Service } from '@pebble/contract';
import type { Access } from './collect/serviceClient';

/** The simulated services while they run. */
export interface RunningStandins {
  readonly services: readonly (Access & { service: Service })[];
  close(): Promise<void>;
}

/** Starts the simulated services on a port of their own, on this machine only. */
export async function startStandins(
  port: number,
  settings: Partial<GateSettings> = {},
): Promise<RunningStandins> {
  let held: SimulatedServices | null = null;
  const answer = async (request: IncomingMessage): Promise<ServiceAnswer> => {
    const origin = originOf(server);
    // A page of another host that was given this address asks under its own name.
    if (!isOwnHost(request.headers.host, origin))
      return problemAnswer(421, 'This host is not answered here.');
    const url = URL.canParse(request.url ?? '/', origin) ? new URL(request.url ?? '/', origin) : null;
    if (url?.origin !== origin) return problemAnswer(400, 'The address is not right.');
    const body = await bodyOf(request);
    held ??= new SimulatedServices(origin, settings);
    return held.answer({
      method: request.method ?? 'GET',
      url,
      headers: request.headers as Record<string, string | undefined>,
      body,
    });
  };
  const server = createServer((request, response) => {
    answer(request)
      .catch((error: unknown) => problemAnswer(400, error instanceof Error ? error.message : String(error)))
      .then(({ status, headers, body }) => response.writeHead(status, headers).end(body))
      .catch(() => response.destroy());
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  const { clientId, secret } = { ...USUAL_GATE, ...settings };
  return {
    services: SIMULATED.map(({ kind, name, path }) => ({
      service: { kind, name, address: `${originOf(server)}${path}` },
      clientId,
      secret,
    })),
    close: () =>
      new Promise((resolve) => {
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}

function originOf(server: Server): string {
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

function isOwnHost(host: string | undefined, origin: string): boolean {
  const { port } = new URL(origin);
  return host === `127.0.0.1:${port}` || host === `localhost:${port}`;
}

/** Bytes that a request to a service has at most. */
const LARGEST = 1024 ** 2;

async function bodyOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > LARGEST) throw new Error('The request is too large.');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks).toString('utf8');
}

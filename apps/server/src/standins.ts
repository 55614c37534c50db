import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { SIMULATED, SimulatedServices, USUAL_GATE, type GateSettings } from '@pebble/standins';
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
  const server = createServer((request, response) => {
    void bodyOf(request).then((body) => {
      const origin = originOf(server);
      held ??= new SimulatedServices(origin, settings);
      const answer = held.answer({
        method: request.method ?? 'GET',
        url: new URL(request.url ?? '/', origin),
        headers: request.headers as Record<string, string | undefined>,
        body,
      });
      response.writeHead(answer.status, answer.headers).end(answer.body);
    });
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

async function bodyOf(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = [];
  for await (const chunk of request) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks).toString('utf8');
}

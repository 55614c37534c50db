/** A request as a simulated service sees it; the server that ships it knows HTTP. */
export interface ServiceRequest {
  readonly method: string;
  /** Path and query. */
  readonly url: URL;
  /** Names in small letters. */
  readonly headers: Readonly<Record<string, string | undefined>>;
  readonly body: string;
}

export interface ServiceAnswer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

/** A simulated service: it answers from what it holds and counts what it was asked. */
export interface SimulatedService {
  answer(request: ServiceRequest): ServiceAnswer;
}

export function jsonAnswer(
  value: unknown,
  type = 'application/json',
  status = 200,
  headers: Record<string, string> = {},
): ServiceAnswer {
  return { status, headers: { 'content-type': type, ...headers }, body: JSON.stringify(value) };
}

/** Problem details (RFC 9457). */
export function problemAnswer(
  status: number,
  title: string,
  headers: Record<string, string> = {},
): ServiceAnswer {
  return jsonAnswer({ type: 'about:blank', title, status }, 'application/problem+json', status, headers);
}

import createClient from 'openapi-fetch';
import type { components, paths } from './schema';
import { wellFormed } from './wellFormed';

/** The shapes of the API by name. */
export type Api = components['schemas'];

/** An error the server explained, or the server being away. */
export class Problem extends Error {
  constructor(
    /** HTTP status; 0 when the server cannot be reached. */
    readonly status: number,
    /** A short name such as `walked-by-another`; `away` when the server cannot be reached. */
    readonly kind: string,
    message: string,
    /** Messages by field path. */
    readonly errors: Record<string, string[]> = {},
    readonly facts: Record<string, unknown> = {},
  ) {
    super(message);
  }

  get isAway(): boolean {
    return this.status === 0 || (this.status >= 502 && this.status <= 504);
  }
}

/** What to say of an error: its first message by field, else what happened. What is no problem of the server is thrown on. */
export function errorMessage(error: unknown): string {
  if (!(error instanceof Problem)) throw error;
  return Object.values(error.errors)[0]?.[0] ?? error.message;
}

const AWAY = 'The server cannot be reached. What you record is kept on this device.';

/** Reads the answer of a failed request. */
export async function problemOf(response: Response): Promise<Problem> {
  const body: Record<string, unknown> = await response.json().catch(() => ({}));
  if (response.status >= 502 && response.status <= 504) return new Problem(response.status, 'away', AWAY);
  if (response.status === 413)
    return new Problem(413, 'too-large', 'The file is too large for the server. Nothing else was touched.');
  const kind = String(body.type ?? '').replace('urn:lucid-step:problem:', '') || 'http';
  return new Problem(
    response.status,
    kind,
    String(body.detail ?? `The server answered ${response.status}.`),
    (body.errors as Record<string, string[]> | undefined) ?? {},
    body,
  );
}

function cookie(name: string): string {
  const found = document.cookie.split('; ').find((c) => c.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : '';
}

/**
 * Sends a request with the session's cookies. Fetches a new token once when the page's is stale.
 * Throws a Problem for everything but a success.
 */
export async function send(path: string, init: RequestInit = {}): Promise<Response> {
  const once = async (): Promise<Response> => {
    const headers = new Headers(init.headers);
    headers.set('Accept', 'application/json');
    headers.set('X-XSRF-TOKEN', cookie('XSRF-TOKEN'));
    try {
      return await fetch(path, { ...init, headers, credentials: 'same-origin' });
    } catch {
      throw new Problem(0, 'away', AWAY);
    }
  };
  let response = await once();
  if (response.status === 419) {
    await fetch('/api/v1/welcome', { headers: { Accept: 'application/json' } }).catch(() => undefined);
    response = await once();
  }
  if (response.status >= 400) throw await problemOf(response);
  return response;
}

const client = createClient<paths>({
  baseUrl: '/api/v1',
  bodySerializer: (body: unknown) => JSON.stringify(wellFormed(body)),
  fetch: async (request: Request) =>
    send(request.url, {
      method: request.method,
      headers: request.headers,
      body: request.method === 'GET' ? null : await request.blob(),
    }),
});

/** The typed client. Failures are thrown as Problems, so `data` is there unless the answer is empty. */
export const api = client;

/** The data of an answer; what has no content is a mistake here. */
export function unwrap<T>(answer: { data?: T }): T {
  if (answer.data === undefined) throw new Problem(204, 'http', 'The server sent nothing.');
  return answer.data;
}

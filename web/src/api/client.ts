import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

export interface FieldProblem {
  pointer: string;
  detail: string;
}

/** A failure the server told of (RFC 9457), or that it could not be reached. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly type: string,
    readonly title: string,
    detail: string,
    readonly errors: FieldProblem[] = [],
    readonly suggestion?: string,
    /** the figure as the server understood it, in the unit it judges in */
    readonly value?: number,
  ) {
    super(detail);
  }

  /** What is wrong with the field at `pointer`, if anything. */
  at(pointer: string): string | undefined {
    return (
      this.errors
        .filter((e) => e.pointer === pointer)
        .map((e) => e.detail)
        .join(' ') || undefined
    );
  }

  /** True where every message already stands beside a field of `pointers`. */
  onlyAt(...pointers: string[]): boolean {
    return this.errors.length > 0 && this.errors.every((e) => pointers.includes(e.pointer));
  }
}

type Listener = () => void;
const lapsed = new Set<Listener>();

/** Calls `listener` when the server says that nobody is signed in any more. */
export function onLapse(listener: Listener): () => void {
  lapsed.add(listener);
  return () => lapsed.delete(listener);
}

function token(): string {
  return decodeURIComponent(/(?:^|; )XSRF-TOKEN=([^;]*)/.exec(document.cookie)?.[1] ?? '');
}

export const api = createClient<paths>({
  baseUrl: window.location.origin,
  // asked for at each call, so that a test can stand in for the server
  fetch: (request) => globalThis.fetch(request),
});

/** Keys of what was sent and not answered yet, or just now, by what it is. */
const keys = new Map<string, string>();

/** What only asks, however it is sent. */
const ASKS =
  /\/(calculations|practice|sign-in|sign-out)\b|\/(preview|check|outlook|what-if|differences)$/;

/** 128 random bits; a page that came without encryption has no crypto.randomUUID. */
const randomKey = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (b) =>
    b.toString(16).padStart(2, '0'),
  ).join('');

/** For so long the same again is taken for a second click, in ms. */
const SECOND_CLICK = 2000;

/**
 * The key of a request that adds something: the same for the same sent again, by a second click or because no answer came. So
 * the server does it once.
 */
async function onceKey(request: Request): Promise<{ key: string; answered: () => void }> {
  const what = `${request.url} ${await request.clone().text()}`;
  const key = keys.get(what) ?? randomKey();
  keys.set(what, key);
  return { key, answered: () => void setTimeout(() => keys.delete(what), SECOND_CLICK) };
}

const waiting = new WeakMap<Request, () => void>();

api.use({
  async onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-XSRF-TOKEN', token());
    if (request.method === 'POST' && !ASKS.test(request.url)) {
      const { key, answered } = await onceKey(request);
      request.headers.set('Idempotency-Key', key);
      waiting.set(request, answered);
    }
    return request;
  },
  onResponse({ request, response }) {
    waiting.get(request)?.();
    return response;
  },
});

async function problemOf(response: Response, body: unknown): Promise<Problem> {
  const p = (body ?? {}) as Partial<Schemas['Problem']>;
  if (response.status === 401) lapsed.forEach((l) => l());
  return new Problem(
    response.status,
    p.type ?? '/problems/unexpected',
    p.title ?? 'Something went wrong',
    p.detail ?? `The server answered ${response.status}.`,
    p.errors ?? [],
    p.suggestion,
    p.value,
  );
}

/** The data of a call, or its problem thrown. */
export async function data<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new Problem(
      0,
      '/problems/unreachable',
      'No answer',
      'The server does not answer. What you typed is still here; try again.',
    );
  }
  if (!result.response.ok) throw await problemOf(result.response, result.error);
  return result.data as T;
}

/** Sends a file's bytes as they are. */
export const sendFile = <T>(path: string, file: Blob) =>
  send<T>(path, 'application/octet-stream', file);

/** The same where the answer is a file too. */
export async function sendForBlob(path: string, file: Blob): Promise<Blob> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', 'X-XSRF-TOKEN': token() },
    body: file,
  });
  if (!response.ok) throw await problemOf(response, await response.json().catch(() => undefined));
  return response.blob();
}

/** Sends a document as plain text, so that what cannot be read is said by the server at its place. */
export const sendText = <T>(path: string, text: string) =>
  send<T>(path, 'text/plain;charset=UTF-8', text);

/** Sends a form with a file; the browser writes its boundaries. */
export function sendForm<T>(path: string, fields: Record<string, string | Blob>): Promise<T> {
  const form = new FormData();
  Object.entries(fields).forEach(([name, value]) => form.append(name, value));
  return send<T>(path, undefined, form);
}

async function send<T>(path: string, type: string | undefined, body: BodyInit): Promise<T> {
  return data<T>(
    fetch(path, {
      method: 'POST',
      headers: { ...(type && { 'Content-Type': type }), 'X-XSRF-TOKEN': token() },
      body,
    }).then(async (response) => {
      const answer: unknown = await response.json().catch(() => undefined);
      return response.ok ? { data: answer as T, response } : { error: answer, response };
    }),
  );
}

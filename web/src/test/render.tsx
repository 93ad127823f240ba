import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { vi } from 'vitest';
import { meQuery } from '../shared/queries';

export interface Call {
  method: string;
  path: string;
  body: unknown;
}

interface Answer {
  status?: number;
  body: unknown;
}

/**
 * Puts `answers` in the place of the server, by method and path; returns the calls that came in. A function answers each call
 * anew.
 */
export function serve(answers: Record<string, Answer | (() => Answer)>): Call[] {
  const calls: Call[] = [];
  vi.stubGlobal('fetch', async (input: Request | string, init?: RequestInit) => {
    const request =
      input instanceof Request ? input : new Request(new URL(input, location.href), init);
    const path = new URL(request.url).pathname;
    const text = await request.text();
    const json = request.headers.get('Content-Type')?.includes('json');
    calls.push({ method: request.method, path, body: json && text ? JSON.parse(text) : text });
    const known = answers[`${request.method} ${path}`];
    if (!known) throw new TypeError(`nobody answers ${request.method} ${path}`);
    const answer = typeof known === 'function' ? known() : known;
    return new Response(JSON.stringify(answer.body), {
      status: answer.status ?? 200,
      headers: { 'Content-Type': 'application/json' },
    });
  });
  return calls;
}

/** What the server says of a field at fault. */
export const problem = (pointer: string, detail: string) => ({
  status: 422,
  body: {
    type: '/problems/invalid-input',
    title: 'Invalid input',
    status: 422,
    detail,
    errors: [{ pointer, detail }],
  },
});

/** The same where the server would take the value if the person insists. */
export const insistable = (pointer: string, detail: string) => {
  const answer = problem(pointer, detail);
  return { ...answer, body: { ...answer.body, suggestion: 'insist' } };
};

/** The calls that change something. */
export const sent = (calls: Call[]) => calls.filter((c) => c.method !== 'GET');

/** Shows `ui` as the app would, without retries; `signedIn` waits until it is known who that is. */
export function show(ui: React.ReactNode, path = '/', signedIn = false) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  return render(
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[path]}>{signedIn ? <Inside>{ui}</Inside> : ui}</MemoryRouter>
    </QueryClientProvider>,
  );
}

function Inside({ children }: { children: React.ReactNode }) {
  return useQuery(meQuery).data ? children : null;
}

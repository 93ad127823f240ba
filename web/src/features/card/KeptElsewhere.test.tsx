import 'fake-indexeddb/auto';
import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import { KeptElsewhere } from './KeptElsewhere';
import { everythingKept, Outbox } from './outbox';

const ME = { ...manager['GET /api/me'].body, role: 'TECHNICIAN', name: 'Hedra Voss' };

describe('what waits, on every page', () => {
  it('says so where the server does not take it, and sends it once it does', async () => {
    const box = new Outbox(
      7,
      () => 'Hedra Voss',
      () => Promise.reject(new Error('no network')),
      {
        taken: () => undefined,
        changed: () => undefined,
      },
    );
    await box.add({ entry: { type: 'TICK', step: 'parts' } }, 1, 'k1');
    const answers: Record<string, { status?: number; body: unknown }> = {
      'GET /api/me': { body: ME },
      'POST /api/jobs/7/card/events': { status: 503, body: {} },
    };
    const calls = serve(answers);
    show(<KeptElsewhere />, '/', true);
    expect(await screen.findByText(/one entry waits/)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'job 7' })).toBeTruthy();

    answers['POST /api/jobs/7/card/events'] = { body: { jobId: 7 } };
    await waitFor(async () => expect(await everythingKept()).toEqual([]), { timeout: 12_000 });
    expect(calls.filter((c) => c.method === 'POST').at(-1)?.body).toMatchObject({
      clientKey: 'k1',
      step: 'parts',
    });
    await waitFor(() => expect(screen.queryByText(/one entry waits/)).toBeNull());
  });

  it('says nothing where nothing waits and the server answers', async () => {
    serve({ 'GET /api/me': { body: ME } });
    const { container } = show(<KeptElsewhere />, '/', true);
    await waitFor(() => expect(container.textContent).toBe(''));
  });
});

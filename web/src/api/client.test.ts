import { afterEach, describe, expect, it, vi } from 'vitest';
import { problem, serve } from '../test/render';
import { api, data, onLapse, Problem, sendFile } from './client';

afterEach(() => vi.unstubAllGlobals());

const failure = async (call: Promise<unknown>): Promise<Problem> =>
  call.then(
    () => {
      throw new Error('expected a problem');
    },
    (e: unknown) => e as Problem,
  );

describe('client', () => {
  it('gives the data of a good answer', async () => {
    serve({ 'GET /api/jobs': { body: [] } });
    expect(await data(api.GET('/api/jobs'))).toEqual([]);
  });

  it('sends the token with changes and not with questions', async () => {
    document.cookie = 'XSRF-TOKEN=abc%2Fdef';
    const tokens: (string | null)[] = [];
    vi.stubGlobal('fetch', async (r: Request) => {
      tokens.push(r.headers.get('X-XSRF-TOKEN'));
      return new Response('{}', { headers: { 'Content-Type': 'application/json' } });
    });
    await data(api.GET('/api/jobs'));
    await data(api.POST('/api/jobs', { body: { vehicleId: 1 } }));
    expect(tokens).toEqual([null, 'abc/def']);
  });

  it('throws a problem that knows its fields', async () => {
    serve({ 'POST /api/jobs': problem('/vehicle', 'No engine family on file.') });
    const p = await failure(data(api.POST('/api/jobs', { body: { vehicleId: 1 } })));
    expect(p).toBeInstanceOf(Problem);
    expect(p.status).toBe(422);
    expect(p.at('/vehicle')).toBe('No engine family on file.');
    expect(p.at('/other')).toBeUndefined();
    expect(p.onlyAt('/vehicle')).toBe(true);
    expect(p.onlyAt('/other')).toBe(false);
  });

  it('says in words that the server does not answer', async () => {
    serve({});
    const p = await failure(data(api.GET('/api/jobs')));
    expect(p.status).toBe(0);
    expect(p.message).toContain('What you typed is still here');
  });

  it('tells whoever listens that the sign-in has lapsed', async () => {
    serve({ 'GET /api/jobs': { status: 401, body: { detail: 'Sign in to go on.' } } });
    const heard = vi.fn();
    const stop = onLapse(heard);
    await failure(data(api.GET('/api/jobs')));
    stop();
    await failure(data(api.GET('/api/jobs')));
    expect(heard).toHaveBeenCalledTimes(1);
  });

  it('sends a list as it is and reads what is wrong with it', async () => {
    serve({ 'POST /api/imports/preview': problem('/file', 'The file is empty.') });
    const p = await failure(sendFile('/api/imports/preview', new Blob([''])));
    expect(p.at('/file')).toBe('The file is empty.');
  });
});

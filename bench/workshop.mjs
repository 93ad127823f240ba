// A workshop's server of its own for a measurement, and a client that signs in there. Used by other scripts of this folder.
import { spawn } from 'node:child_process';

export const CODE = '24682468';
export const PASSWORD = 'as-many-words-as-needed';
export const wait = (ms) => new Promise((done) => setTimeout(done, ms));

/** Starts a program on a folder's data; `said` grows with what it prints. */
export function launch(jar, folder, port, more = []) {
  const server = spawn(
    'java',
    [
      '-XX:TieredStopAtLevel=1',
      '-XX:+UseSerialGC',
      '-jar',
      jar,
      `--knollfield.data=${folder}/workshop`,
      `--knollfield.first-run-code=${CODE}`,
      `--server.port=${port}`,
      ...more,
    ],
    { stdio: ['ignore', 'pipe', 'pipe'] },
  );
  server.said = '';
  server.stdout.on('data', (d) => (server.said += d));
  server.stderr.on('data', (d) => (server.said += d));
  return server;
}

/** Waits until a server answers. */
export async function up(port, server) {
  for (let i = 0; i < 1200; i++) {
    if (server && server.exitCode !== null)
      throw new Error(`it did not start: ${server.said.slice(-600)}`);
    try {
      return await (await fetch(`http://127.0.0.1:${port}/api/me`)).json();
    } catch {
      await wait(50);
    }
  }
  throw new Error('it did not answer within a minute');
}

const ended = (server) => server.exitCode !== null || server.signalCode !== null;

/** Ends a server; SIGKILL is what a kill -9 sends. */
export const end = (server, signal = 'SIGTERM') =>
  new Promise((done) => {
    if (!server || ended(server)) return done();
    server.once('exit', done);
    server.kill(signal);
  });

/** Somebody's browser, without the browser. */
export function client(port) {
  let cookies = {};
  const call = async (method, path, body, type = 'application/json') => {
    const answer = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      headers: {
        'Content-Type': type,
        Cookie: Object.entries(cookies)
          .map(([k, v]) => `${k}=${v}`)
          .join('; '),
        'X-XSRF-TOKEN': cookies['XSRF-TOKEN'] ?? '',
      },
      body: body && (type === 'application/json' ? JSON.stringify(body) : body),
    });
    for (const c of answer.headers.getSetCookie()) {
      const [, k, v] = /^([^=]+)=([^;]*)/.exec(c);
      cookies[k] = v;
    }
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text.slice(0, 300)}`);
    return text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text;
  };
  /** Signs in as the workshop's manager, and makes that account where there is none yet. */
  const enter = async (signIn = 'm', password = PASSWORD) => {
    cookies = {};
    const me = await call('GET', '/api/me');
    if (me.firstRun) {
      await call('POST', '/api/first-run', { code: CODE, signIn, name: 'M', password });
    } else await call('POST', '/api/sign-in', { signIn, password });
  };
  return { call, enter };
}

/** A vehicle as the screen sends it. */
export const vehicle = (registration) => ({
  registration,
  makeModel: 'van',
  engine: '',
  ownerName: `Owner of ${registration}`,
  ownerPhone: '0555 1',
  usageClass: 'PRIVATE',
  firstRegistered: '2019-05-01',
  conditions: [],
  equipment: [],
  heavy: false,
  version: 0,
  idleHoursPerYear: 0,
  cameWithReading: false,
});

/** Notes evidence that stops nothing; the note is what it is found again by. */
export const note = (hand, id, text) =>
  hand.call('POST', `/api/vehicles/${id}/evidence`, {
    kind: 'OIL_TOP',
    found: '2026-11-01',
    note: text,
  });

/** The vehicle of a registration. */
export const find = async (hand, registration) =>
  (await hand.call('GET', `/api/find?q=${registration.replaceAll(' ', '')}`)).vehicles[0].vehicleId;

/** Notes of a vehicle that are on file. */
export const notes = async (hand, id) =>
  new Set((await hand.call('GET', `/api/vehicles/${id}`)).evidence.map((e) => e.note));

// Writes notes to a server and to a file once they are answered, until a file says stop; without that file, counts how
// many of the notes in the first are not there. Used by bench/power-cut.sh and bench/commits.sh.
import { appendFileSync, existsSync, readFileSync } from 'node:fs';

const [port, list, stop] = process.argv.slice(2);
const base = `http://127.0.0.1:${port}`;
const PASSWORD = 'as-many-words-as-needed';
const wait = (ms) => new Promise((done) => setTimeout(done, ms));

async function up() {
  for (let i = 0; i < 1200; i++) {
    try {
      return await (await fetch(`${base}/api/me`)).json();
    } catch {
      await wait(50);
    }
  }
  throw new Error('no answer');
}

export async function client() {
  const cookies = {};
  const call = async (method, path, body) => {
    const answer = await fetch(base + path, {
      method,
      headers: {
        'Content-Type': 'application/json',
        Cookie: Object.entries(cookies)
          .map(([k, v]) => `${k}=${v}`)
          .join('; '),
        'X-XSRF-TOKEN': cookies['XSRF-TOKEN'] ?? '',
      },
      body: body && JSON.stringify(body),
    });
    for (const c of answer.headers.getSetCookie()) {
      const [, k, v] = /^([^=]+)=([^;]*)/.exec(c);
      cookies[k] = v;
    }
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${path}: ${answer.status} ${text}`);
    return text && JSON.parse(text);
  };
  const me = await call('GET', '/api/me');
  if (me.firstRun) {
    await call('POST', '/api/first-run', {
      code: '24682468',
      signIn: 'm',
      name: 'M',
      password: PASSWORD,
    });
  } else await call('POST', '/api/sign-in', { signIn: 'm', password: PASSWORD });
  return call;
}

await up();
const call = await client();
if (stop) {
  await call('POST', '/api/vehicles', {
    registration: 'CUT 1',
    makeModel: 'van',
    ownerName: 'O',
    ownerPhone: '0555',
    usageClass: 'PRIVATE',
    firstRegistered: '2019-05-01',
    conditions: [],
    equipment: [],
    heavy: false,
    cameWithReading: false,
    idleHoursPerYear: 0,
    version: 0,
  });
}
const id = (await call('GET', '/api/find?q=CUT1')).vehicles[0].vehicleId;
if (stop) {
  let next = 0;
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      const hand = await client();
      while (!existsSync(stop)) {
        const note = `note ${++next}`;
        await hand('POST', `/api/vehicles/${id}/evidence`, {
          kind: 'OIL_TOP',
          found: '2026-11-01',
          note,
        });
        appendFileSync(list, `${note}\n`);
      }
    }),
  );
} else {
  const known = new Set((await call('GET', `/api/vehicles/${id}`)).evidence.map((e) => e.note));
  const said = readFileSync(list, 'utf8').split('\n').filter(Boolean);
  console.log(said.filter((n) => !known.has(n)).length);
}

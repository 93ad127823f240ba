// Load on a running server: how long the Desk's first page and Ahead take with parallel users.
// node bench/load.mjs [http://localhost:8080] [users] [requests of each user]
// node bench/load.mjs http://localhost:8080 5 30 planning: the same places beside the Board, with and without a plan being
// worked out all the time (a demo of the usual size)
// Start the server with: KNOLLFIELD_PORT=8080 ./knollfield demo --knollfield.demo.vehicles=20000
import { performance } from 'node:perf_hooks';

const [address = 'http://localhost:8080', users = '20', requests = '30', mode = ''] = process.argv.slice(2);

async function signIn() {
  const jar = new Map();
  const keep = (response) =>
    response.headers.getSetCookie().forEach((c) => {
      const [name, value] = c.split(';')[0].split('=');
      jar.set(name, value);
    });
  const headers = () => ({
    Cookie: [...jar].map(([k, v]) => `${k}=${v}`).join('; '),
    'X-XSRF-TOKEN': decodeURIComponent(jar.get('XSRF-TOKEN') ?? ''),
    'Content-Type': 'application/json',
  });
  keep(await fetch(`${address}/api/me`));
  const answer = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: headers(),
    body: JSON.stringify({ signIn: 'ines', password: 'skerrow-demo' }),
  });
  keep(answer);
  if (!answer.ok) throw new Error(`sign-in: ${answer.status}`);
  return headers;
}

const day = (n) => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10);
const places = {
  'Desk, first page': (i) => `/api/desk?limit=100${['', '&drive=BELT', '&order=ACT_BY', '&status=OVERDUE'][i % 4]}`,
  // every request another day, as when the slider is moved
  'Ahead, any day': (i) => `/api/ahead?date=${day(1 + ((i * 37) % 700))}`,
};

async function measure(path, thinkMs) {
  const times = [];
  await Promise.all(
    Array.from({ length: Number(users) }, async (_, user) => {
      const headers = await signIn();
      if (thinkMs) await new Promise((r) => setTimeout(r, Math.random() * thinkMs));
      for (let i = 0; i < Number(requests); i++) {
        const begin = performance.now();
        const answer = await fetch(address + path(user * Number(requests) + i), { headers: headers() });
        await answer.arrayBuffer();
        if (!answer.ok) throw new Error(`${path(i)}: ${answer.status}`);
        times.push(performance.now() - begin);
        if (thinkMs) await new Promise((r) => setTimeout(r, thinkMs * (0.5 + Math.random())));
      }
    }),
  );
  times.sort((a, b) => a - b);
  const at = (p) => times[Math.min(times.length - 1, Math.floor(p * times.length))].toFixed(0);
  return `n ${times.length}, median ${at(0.5)} ms, p95 ${at(0.95)} ms, worst ${at(1)} ms`;
}

/** Keeps a plan being worked out for as long as `during` takes. */
async function whilePlanning(during) {
  const headers = await signIn();
  const post = async (path, body) =>
    (await fetch(address + path, { method: 'POST', headers: headers(), body: JSON.stringify(body) })).json();
  const { id } = await post('/api/board/plan', { steps: 10_000_000 });
  const result = await during();
  const { phase } = await post(`/api/board/plan/${id}/stop`, {});
  if (phase !== 'RUNNING') throw new Error('the plan was done before the load was');
  return result;
}

if (mode === 'planning') {
  places.Board = () => '/api/board';
  delete places['Ahead, any day'];
  for (const [name, path] of Object.entries(places)) {
    for (let i = 0; i < 3; i++) await measure(path, 0);
    console.log(`${name}, ${users} users, about a second between: ${await measure(path, 1000)}`);
    const beside = await whilePlanning(() => measure(path, 1000));
    console.log(`${name}, the same while a plan is worked out: ${beside}`);
  }
  process.exit(0);
}

for (const [name, path] of Object.entries(places)) {
  for (let i = 0; i < 3; i++) await measure(path, 0); // until the server's code is compiled
  console.log(`${name}, ${users} users without a pause: ${await measure(path, 0)}`);
  console.log(`${name}, ${users} users, about a second between: ${await measure(path, 1000)}`);
}

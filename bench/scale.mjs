// How a jar bears many vehicles: its first start, a later one, the first Desk after it, a changed policy and what it moves
// before it is saved, memory. With an older jar the same beside it, as ratios.
// node bench/scale.mjs VEHICLES JAR [OLDJAR]
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { setTimeout as pause } from 'node:timers/promises';

const [vehicles, ...jars] = process.argv.slice(2);
const PORT = 8197;
const ADDRESS = `http://localhost:${PORT}`;
const POLICY = [
  'policy earlyShare fixedKm fixedMonths riskInterference riskOther horizonDays unknownRule statedCounts labourRateMinor',
  'recoveryMinor dayOffRoadMinor daysOffRoad shareFailedAtLimits wearShape school seals stranding visit visitsPerYear version',
].join(' ').split(' ');

const since = (begin) => (performance.now() - begin) / 1000;

async function start(jar, data) {
  const begin = performance.now();
  const server = spawn(
    'java',
    ['-XX:TieredStopAtLevel=1', '-XX:+UseSerialGC', '-jar', jar, '--knollfield.demo=true', `--server.port=${PORT}`,
      `--knollfield.demo.vehicles=${vehicles}`, `--knollfield.data=${data}`],
    { stdio: 'ignore' },
  );
  for (;;) {
    const up = await fetch(`${ADDRESS}/api/me`).then((a) => a.ok, () => false);
    if (up) break;
    if (server.exitCode !== null) throw new Error(`${jar} did not start`);
    await pause(50);
  }
  return { server, seconds: since(begin) };
}

async function stop(server) {
  const gone = new Promise((done) => server.once('exit', done));
  server.kill();
  await gone;
}

async function client() {
  const jar = new Map();
  const ask = async (method, path, body) => {
    const answer = await fetch(ADDRESS + path, {
      method,
      headers: {
        Cookie: [...jar].map(([k, v]) => `${k}=${v}`).join('; '),
        'X-XSRF-TOKEN': decodeURIComponent(jar.get('XSRF-TOKEN') ?? ''),
        'Content-Type': 'application/json',
      },
      body: body && JSON.stringify(body),
    });
    answer.headers.getSetCookie().forEach((c) => {
      const [name, value] = c.split(';')[0].split('=');
      jar.set(name, value);
    });
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
    return answer.json().catch(() => undefined);
  };
  await ask('GET', '/api/me');
  await ask('POST', '/api/sign-in', { signIn: 'ines', password: 'skerrow-demo' });
  return ask;
}

async function timed(what) {
  const begin = performance.now();
  await what();
  return since(begin);
}

const megabytes = (server) =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, 'utf8'))[1]) / 1024;

async function figures(jar) {
  const folder = mkdtempSync(join(tmpdir(), 'scale-'));
  const data = join(folder, 'data');
  try {
    const first = await start(jar, data);
    let ask = await client();
    const firstDesk = await timed(() => ask('GET', '/api/desk?limit=100'));
    await stop(first.server);

    const later = await start(jar, data);
    ask = await client();
    const laterDesk = await timed(() => ask('GET', '/api/desk?limit=100'));
    const before = await ask('GET', '/api/setup/workshop');
    const change = Object.fromEntries(POLICY.map((name) => [name, before[name]]));
    change.horizonDays += 10;
    const preview = await timed(() => ask('POST', '/api/setup/workshop/preview', change));
    await ask('PUT', '/api/setup/workshop', change);
    const policyDesk = await timed(() => ask('GET', '/api/desk?limit=100'));
    const memory = megabytes(later.server);
    await stop(later.server);
    return {
      'first start, s': first.seconds,
      'first Desk after it, s': firstDesk,
      'later start, s': later.seconds,
      'first Desk after a later start, s': laterDesk,
      'what a policy would move, s': preview,
      'first Desk after a changed policy, s': policyDesk,
      'memory (resident), MB': memory,
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const all = [];
for (const jar of jars) all.push(await figures(jar));
console.log(`${vehicles} vehicles`);
for (const name of Object.keys(all[0])) {
  const [now, old] = all.map((f) => f[name]);
  console.log(`${name}: ${now.toFixed(1)}${old === undefined ? '' : `, older jar ${old.toFixed(1)}, ratio ${(now / old).toFixed(2)}`}`);
}

// Kills the server (kill -9) again and again, and looks whether it starts and what it has: nothing that was answered is lost.
//   node bench/kill.mjs JAR writes 100          while eight clients write
//   node bench/kill.mjs JAR first 25            during the first start
//   node bench/kill.mjs JAR upgrade 25 OLDJAR   while the data of an older version are brought up to this one
//   node bench/kill.mjs JAR import 10           while a list is taken in
//   node bench/kill.mjs JAR backup 10           while a backup is made, and then while it is taken in
import { spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  client as clientOf,
  end,
  find,
  launch as launchAt,
  note,
  notes,
  up as upAt,
  vehicle,
  wait,
} from './workshop.mjs';

const [jar, what = 'writes', rounds = '10', older] = process.argv.slice(2);
const count = Number(rounds);
const top = mkdtempSync(join(tmpdir(), 'knollfield-kill-'));
const port = 8196;
let seed = 17;
// a small generator of its own (Park and Miller, CACM 31, 1988), so that the same rounds can be run again
const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;

let server;
const launch = (folder, program = jar, more = []) =>
  (server = launchAt(program, folder, port, more));
const up = () => upAt(port, server);
const kill = () => end(server, 'SIGKILL');
const client = () => clientOf(port);

async function writes() {
  const folder = join(top, 'writes');
  const said = new Set();
  let next = 0;
  let lost = 0;
  for (let round = 1; round <= count; round++) {
    launch(folder);
    await up();
    const main = client();
    await main.enter();
    if (round === 1) await main.call('POST', '/api/vehicles', vehicle('KIL 1'));
    const id = await find(main, 'KIL 1');
    const known = await notes(main, id);
    for (const text of said) if (!known.has(text)) lost++;
    let killed = false;
    // one browser with eight calls under way at a time
    const hands = Array.from({ length: 8 }, async () => {
      while (!killed) {
        const text = `note ${++next}`;
        await note(main, id, text);
        said.add(text);
      }
    });
    await wait(500 + random() * 900);
    const dead = kill();
    killed = true;
    await Promise.allSettled([...hands, dead]);
    if (round % 10 === 0)
      console.log(`${round} kills, ${said.size} writes answered, ${lost} lost so far`);
  }
  launch(folder);
  await up();
  const main = client();
  await main.enter();
  const known = await notes(main, await find(main, 'KIL 1'));
  for (const text of said) if (!known.has(text)) lost++;
  await kill();
  console.log(
    `${count} kills while writing: ${said.size} writes answered, ${lost} of them lost, started each time`,
  );
}

async function first() {
  let longest = 0;
  launch(join(top, 'warm'));
  const began = Date.now();
  await up();
  longest = Date.now() - began;
  await kill();
  for (let round = 1; round <= count; round++) {
    const folder = join(top, `first${round}`);
    launch(folder);
    await wait(((round - random()) / count) * longest * 1.1);
    await kill();
    launch(folder);
    await up();
    await client().enter();
    await kill();
    rmSync(folder, { recursive: true });
  }
  console.log(`${count} kills during the first start, over its ${longest} ms: started each time`);
}

async function upgrade() {
  const old = join(top, 'old');
  launch(old, older, ['--knollfield.demo=true']);
  await up();
  await wait(1000);
  await end(server);
  const rows = async (folder) => {
    launch(folder, jar, ['--knollfield.demo=true']);
    await up();
    const c = client();
    await c.enter('ines', 'skerrow-demo');
    const view = await c.call('GET', '/api/desk');
    return `${view.vehicles} vehicles, ${view.toDecide} to decide`;
  };
  const reference = join(top, 'reference');
  cpSync(old, reference, { recursive: true });
  const began = Date.now();
  const expected = await rows(reference);
  const longest = Date.now() - began;
  await kill();
  for (let round = 1; round <= count; round++) {
    const folder = join(top, `up${round}`);
    cpSync(old, folder, { recursive: true });
    launch(folder, jar, ['--knollfield.demo=true']);
    await wait(((round - random()) / count) * longest);
    await kill();
    const after = await rows(folder);
    if (after !== expected) throw new Error(`${after} instead of ${expected}`);
    await kill();
    rmSync(folder, { recursive: true });
  }
  console.log(
    `${count} kills during an upgrade with data, over its ${longest} ms: started each time, ${expected}`,
  );
}

// as an office program of the decimal comma writes it
const HEAD = 'Kennzeichen;Modell;Halter;Erstzulassung;km-Stand;Stand vom';
const AS = encodeURIComponent(JSON.stringify({ takeGood: true }));
async function importing() {
  const folder = join(top, 'import');
  let whole = 0;
  for (let round = 1; round <= count; round++) {
    launch(folder);
    await up();
    const main = client();
    await main.enter();
    const lines = Array.from(
      { length: 600 },
      (_, i) => `I${round} ${i} B;Calder;Müller ${i};1.5.2019;20.000;03.11.2025`,
    );
    const sent = main
      .call(
        'POST',
        `/api/imports?as=${AS}&name=list.csv`,
        [HEAD, ...lines].join('\r\n'),
        'application/octet-stream',
      )
      .then(
        () => true,
        () => false,
      );
    await wait(random() * 8000);
    await kill();
    const answered = await sent;
    launch(folder);
    await up();
    const again = client();
    await again.enter();
    const found = (await again.call('GET', `/api/find?q=I${round}+1+B`)).vehicles.length > 0;
    if (answered && !found) throw new Error(`round ${round}: a list that was answered is gone`);
    if (found) whole++;
    await kill();
  }
  console.log(
    `${count} kills during an import: each list whole or not there (${whole} whole), started each time`,
  );
}

async function backup() {
  const folder = join(top, 'backup');
  launch(folder);
  await up();
  const main = client();
  await main.enter();
  for (let i = 0; i < 300; i++) await main.call('POST', '/api/vehicles', vehicle(`KIL ${i}`));
  const run = (...args) =>
    spawnSync(
      'java',
      ['-XX:TieredStopAtLevel=1', '-jar', jar, ...args, `--knollfield.data=${folder}/workshop`],
      {
        encoding: 'utf8',
      },
    );
  const good = join(top, 'good.zip');
  const said = run('backup', good);
  if (said.status !== 0) throw new Error(said.stderr);
  for (let round = 1; round <= count; round++) {
    const file = join(top, `b${round}.zip`);
    const made = spawn(
      'java',
      ['-jar', jar, 'backup', file, `--knollfield.data=${folder}/workshop`],
      {
        stdio: 'ignore',
      },
    );
    await wait(800 + random() * 1500);
    await kill();
    await new Promise((done) => (made.exitCode !== null ? done() : made.once('exit', done)));
    // whole, or not there under its name
    if (existsSync(file)) {
      const tried = run('restore', file);
      if (tried.status !== 0) throw new Error(`a backup that is no good: ${tried.stderr}`);
    }
    const restoring = spawn(
      'java',
      ['-jar', jar, 'restore', good, `--knollfield.data=${folder}/workshop`],
      {
        stdio: 'ignore',
      },
    );
    await wait(300 + random() * 1500);
    restoring.kill('SIGKILL');
    launch(folder);
    await up();
    const c = client();
    await c.enter();
    const n = (await c.call('GET', '/api/find?q=KIL')).total ?? 0;
    if (n === 0) throw new Error('the vehicles are gone');
  }
  await kill();
  const rest = readdirSync(folder).filter((f) => f.startsWith('.knollfield-'));
  console.log(
    `${count} kills during a backup and ${count} during a restore: each backup good or not there, started each time (${rest.length} working folders left)`,
  );
}

try {
  await { writes, first, upgrade, import: importing, backup }[what]();
} finally {
  await kill();
  rmSync(top, { recursive: true, force: true });
}

// Kills the server again and again while it sends, and counts what arrived: nothing twice, nothing lost without a word.
// node bench/outbox-kill.mjs app/target/knollfield-app-0.1.0-boot.jar [rounds]
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const [jar, rounds = '10'] = process.argv.slice(2);
const folder = mkdtempSync(join(tmpdir(), 'knollfield-outbox-'));
const port = 8197;
const wait = (ms) => new Promise((done) => setTimeout(done, ms));
const arrived = new Map();

// a mail server that takes its time, so that it is killed in the middle of one too
const sink = net.createServer((socket) => {
  let data = false;
  let text = '';
  let rest = '';
  const say = (line) => socket.writable && socket.write(`${line}\r\n`);
  say('220 sink');
  socket.on('error', () => undefined);
  socket.on('data', async (chunk) => {
    rest += chunk;
    for (let at = rest.indexOf('\r\n'); at >= 0; at = rest.indexOf('\r\n')) {
      const line = rest.slice(0, at);
      rest = rest.slice(at + 2);
      if (!data) {
        if (/^DATA/i.test(line)) data = true;
        say(/^DATA/i.test(line) ? '354 go on' : /^QUIT/i.test(line) ? '221 bye' : '250 ok');
      } else if (line === '.') {
        data = false;
        const id = /^Message-ID: *(\S+)/im.exec(text)?.[1];
        text = '';
        // taken here: what happens before the answer is read is what nobody can know
        arrived.set(id, (arrived.get(id) ?? 0) + 1);
        await wait(Math.random() * 15);
        say('250 taken');
      } else {
        text += `${line}\n`;
      }
    }
  });
});
await new Promise((done) => sink.listen(0, '127.0.0.1', done));

let server;
async function start() {
  server = spawn(
    'java',
    [
      '-XX:TieredStopAtLevel=1',
      '-jar',
      jar,
      '--knollfield.demo=true',
      '--knollfield.demo.vehicles=2400',
      `--knollfield.data=${folder}/data`,
      `--server.port=${port}`,
    ],
    { stdio: 'ignore' },
  );
  for (;;) {
    try {
      await fetch(`http://localhost:${port}/api/me`);
      return;
    } catch {
      await wait(200);
    }
  }
}

const gone = () => new Promise((done) => (server.once('exit', done), server.kill('SIGKILL')));

let cookies = {};
async function call(method, path, body) {
  const answer = await fetch(`http://localhost:${port}${path}`, {
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
  if (!answer.ok && answer.status !== 401) throw new Error(`${path}: ${await answer.text()}`);
  return answer.status === 204 || answer.status === 401 ? undefined : answer.json();
}
async function signIn() {
  cookies = {};
  await call('GET', '/api/me');
  await call('POST', '/api/sign-in', { signIn: 'ines', password: 'skerrow-demo' });
}

try {
  await start();
  await signIn();
  const now = await call('GET', '/api/setup/mail-server');
  await call('PUT', '/api/setup/mail-server', {
    ...now,
    host: '127.0.0.1',
    port: sink.address().port,
    security: 'NONE',
  });
  const { letters } = await call('GET', '/api/letters/reminders');
  const chosen = letters
    .map((l) => ({ l, way: l.ways.map((w) => w.channel).find((w) => w !== 'LETTER') }))
    .filter((c) => c.way);
  const mails = chosen.filter((c) => c.way === 'EMAIL').length;
  await call('POST', '/api/letters/reminders', {
    letters: chosen.map(({ l, way }) => ({
      ownerId: l.ownerId,
      channel: way,
      vehicles: l.lines.map((v) => v.vehicleId),
    })),
  });
  let kills = 0;
  for (;;) {
    if (kills < Number(rounds)) {
      await wait(2_000 + Math.random() * 1_500);
      await gone();
      kills++;
      await start();
      await signIn();
    } else {
      await wait(1_000);
    }
    const c = await call('GET', '/api/outbox/counts');
    if (c.waiting === 0) {
      const files = readdirSync(join(folder, 'outbox'));
      const texts = files.filter((f) => f.startsWith('text-') && f.endsWith('.txt')).length;
      const twice = [...arrived.values()].filter((n) => n > 1).length;
      const gone = mails - c.unsure - c.failed;
      console.log(`${kills} kills; ${mails} mails and ${chosen.length - mails} text messages written`);
      console.log(`mails: ${arrived.size} arrived, ${twice} twice; noted as gone ${gone}, ${c.unsure} to be asked about, ${c.failed} failed`);
      console.log(`text messages: ${texts} files, ${files.filter((f) => f.endsWith('.part')).length} halves`);
      const whole =
        twice === 0 &&
        arrived.size >= gone &&
        arrived.size <= gone + c.unsure &&
        texts === chosen.length - mails;
      console.log(whole ? 'each once' : 'NOT each once');
      process.exitCode = whole ? 0 : 1;
      break;
    }
  }
} finally {
  server?.kill('SIGKILL');
  sink.close();
  rmSync(folder, { recursive: true, force: true });
}

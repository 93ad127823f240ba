// What a commit that is on the disk before it is answered costs: the same writes to this program and to one of before, which
// answered without, in turn, on the same disk. Usage: node bench/commits.mjs JAR OLDJAR [rounds]
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { client, end, find, launch, note, up, vehicle } from './workshop.mjs';

const [now, before, rounds = '5'] = process.argv.slice(2);
const port = 8194;
const top = mkdtempSync(join(tmpdir(), 'knollfield-commits-'));
const median = (all) => all.sort((a, b) => a - b)[Math.floor(all.length / 2)];

async function measure(jar, name, hands) {
  const server = launch(jar, join(top, name), port);
  try {
    await up(port, server);
    const main = client(port);
    await main.enter();
    await main.call('POST', '/api/vehicles', vehicle('COM 1'));
    const id = await find(main, 'COM 1');
    for (let i = 0; i < 100; i++) await note(main, id, `warm ${i}`);
    const took = [];
    const began = performance.now();
    await Promise.all(
      Array.from({ length: hands }, async (_, h) => {
        const hand = client(port);
        await hand.enter();
        for (let i = 0; i < 200 / hands; i++) {
          const at = performance.now();
          await note(hand, id, `note ${h} ${i}`);
          took.push(performance.now() - at);
        }
      }),
    );
    return { each: median(took), all: performance.now() - began };
  } finally {
    await end(server);
  }
}

try {
  for (const hands of [1, 8]) {
    const ratios = [];
    const waits = [];
    for (let round = 0; round < Number(rounds); round++) {
      const a = await measure(now, `now${hands}-${round}`, hands);
      const b = await measure(before, `before${hands}-${round}`, hands);
      ratios.push(a.each / b.each);
      waits.push(`${a.each.toFixed(1)}/${b.each.toFixed(1)}`);
    }
    console.log(
      `${hands} writing: a write takes ${median(ratios).toFixed(2)} times as long as before (medians in ms, now/before: ${waits.join(', ')})`,
    );
  }
} finally {
  rmSync(top, { recursive: true, force: true });
}

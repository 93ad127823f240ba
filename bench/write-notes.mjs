// Writes notes to a server and to a file once they are answered, until a file says stop; without that file, counts how
// many of the notes in the first are not there. Used by bench/power-cut.sh.
import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { client, find, note, notes, up, vehicle } from './workshop.mjs';

const [port, list, stop] = process.argv.slice(2);

await up(port);
const main = client(port);
await main.enter();
if (stop) {
  await main.call('POST', '/api/vehicles', vehicle('CUT 1'));
  const id = await find(main, 'CUT 1');
  let next = 0;
  await Promise.all(
    Array.from({ length: 8 }, async () => {
      const hand = client(port);
      await hand.enter();
      while (!existsSync(stop)) {
        const text = `note ${++next}`;
        await note(hand, id, text);
        appendFileSync(list, `${text}\n`);
      }
    }),
  );
} else {
  const known = await notes(main, await find(main, 'CUT 1'));
  const said = readFileSync(list, 'utf8').split('\n').filter(Boolean);
  console.log(said.filter((n) => !known.has(n)).length);
}

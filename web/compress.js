// Packs what a page fetches once and for all, as small as it gets: packed at each request it would be larger. Says what is
// fetched before anybody is signed in, and fails where that has grown.
import console from 'node:console';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { URL } from 'node:url';
import { gzipSync } from 'node:zlib';

// what the sign-in fetches by itself right after, to keep and to renew the app, comes on top: about 4 kB
const MOST = 176_500;

const site = new URL('target/site/', import.meta.url);
const folder = new URL('assets/', site);
const packed = {};
for (const name of readdirSync(folder)) {
  if (!/\.(js|css|svg)$/.test(name)) continue;
  const gz = gzipSync(readFileSync(new URL(name, folder)), { level: 9 });
  writeFileSync(new URL(`${name}.gz`, folder), gz);
  packed[name] = gz.length;
}
const page = readFileSync(new URL('index.html', site), 'utf8');
const first = [...new Set(page.match(/[\w.-]+\.js(?=")/g))].filter((name) => packed[name]);
const bytes = first.reduce((sum, name) => sum + packed[name], 0);
console.log(`web: ${first.length} scripts before the sign-in, ${bytes} bytes on the wire`);
if (bytes > MOST)
  throw new Error(`what is fetched before the sign-in has grown beyond ${MOST} bytes`);

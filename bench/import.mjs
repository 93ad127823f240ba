// A list of 10,000 vehicles with 500 bad lines: looked at, taken in, taken in again, taken back.
// node bench/import.mjs [address] [sign-in] [password] [lines], against a server that was started for it
const [address = 'http://localhost:8080', signIn = 'ines', password = 'skerrow-demo', lines = '10000'] =
  process.argv.slice(2);
const cookies = {};

async function call(method, path, body, type) {
  const response = await fetch(address + path, {
    method,
    body,
    headers: {
      ...(type && { 'Content-Type': type }),
      Cookie: Object.entries(cookies)
        .map(([k, v]) => `${k}=${v}`)
        .join('; '),
      'X-XSRF-TOKEN': decodeURIComponent(cookies['XSRF-TOKEN'] ?? ''),
    },
  });
  for (const cookie of response.headers.getSetCookie()) {
    const [name, value] = cookie.split(';')[0].split('=');
    cookies[name] = value;
  }
  if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
  return response.json();
}

// as an office program of the decimal comma writes it; every twentieth line has no date
const rows = ['Kennzeichen;Modell;Halter;Erstzulassung;km-Stand;Stand vom'];
for (let i = 0; i < Number(lines); i++) {
  const day = i % 20 === 7 ? 'bald' : `${1 + (i % 28)}.${1 + (i % 12)}.${2010 + (i % 13)}`;
  const km = `${1 + (i % 199)}.${String((i * 37) % 1000).padStart(3, '0')}`;
  rows.push(`ZQ ${i} B;Calder;Müller ${i};${day};${km};03.11.2025`);
}
const file = Buffer.from(rows.join('\r\n'), 'latin1');
const as = `as=${encodeURIComponent(JSON.stringify({ takeGood: true }))}&name=bench.csv`;

async function timed(what, work) {
  const begun = performance.now();
  const answer = await work();
  console.log(`${what}: ${((performance.now() - begun) / 1000).toFixed(1)} s`);
  return answer;
}

await call('GET', '/api/me');
await call('POST', '/api/sign-in', JSON.stringify({ signIn, password }), 'application/json');
await call('GET', '/api/me');
const octets = 'application/octet-stream';
const seen = await timed('looked at', () => call('POST', `/api/imports/preview?${as}`, file, octets));
console.log(`  ${seen.total} lines, ${seen.good} good, ${seen.bad} bad`);
const taken = await timed('taken in', () => call('POST', `/api/imports?${as}`, file, octets));
const again = await timed('taken in again', () => call('POST', `/api/imports?${as}`, file, octets));
console.log(`  ${taken.made} new; again: ${again.made} new, ${again.left} left`);
await timed('taken back', () => call('POST', `/api/imports/${taken.batch}/take-back`, ''));

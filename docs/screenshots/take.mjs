// Drives the demo through its main views and keeps a picture of each.
import { chromium } from 'playwright-core';

const [address, folder] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking'],
});

async function window(signIn, width = 1280, height = 800) {
  const page = await (await browser.newContext({ viewport: { width, height }, locale: 'en-GB' })).newPage();
  await page.goto(address);
  if (signIn) {
    await page.fill('#sign-in', signIn);
    await page.fill('#password', 'skerrow-demo');
    await page.click('button[type=submit]');
    await page.waitForSelector('header.shell');
  }
  return page;
}

async function pick(page, field, option) {
  await page.click(field);
  await page.locator('.ant-select-dropdown:visible').getByText(option, { exact: true }).click();
}

async function keep(page, name) {
  await page.waitForTimeout(800);
  await page.screenshot({ path: `${folder}/${name}.png` });
}

const ines = await window('ines');
await ines.goto(`${address}/?drive=BELT`);
await ines.waitForSelector('.row');
await ines.locator('.row').nth(2).click();
await keep(ines, 'desk');
await ines.locator('.row .registration').nth(2).click();
await ines.waitForSelector('.dossier.wide');
await keep(ines, 'dossier');
await ines.goto(`${address}/fleets`);
await ines.getByRole('link', { name: 'Post and parcel' }).click();
await ines.waitForSelector('.fleet-months');
await keep(ines, 'fleet');
await ines.goto(`${address}/ahead`);
await ines.waitForSelector('.crowd');
await keep(ines, 'ahead');
await ines.goto(`${address}/board`);
await ines.waitForSelector('.board-track.technician .job-bar');
await ines.locator('.board-track.technician .job-bar.promised').nth(1).click();
await ines.getByText('Why here?').click();
await ines.waitForSelector('.why-list');
await keep(ines, 'board');
await ines.getByText('Close', { exact: true }).click();
await ines.getByText('Work out a plan').click();
await ines.waitForSelector('.changes', { timeout: 60_000 });
await keep(ines, 'plan');
await ines.getByText('Leave the board as it is').click();
await ines.goto(`${address}/stores`);
await ines.waitForSelector('.need-list');
await keep(ines, 'stores');
await ines.goto(`${address}/jobs`);
await ines.waitForSelector('.job-row');
await keep(ines, 'jobs');
await ines.locator('.job-row', { hasText: 'no slot yet' }).first().getByText('promise', { exact: true }).click();
await ines.waitForSelector('.booking .week');
await keep(ines, 'builder');
await ines.getByText('Make the estimate').click();
await ines.waitForSelector('.consents');
// what the owner gets of it, on a phone without scripts
const job = Number(ines.url().match(/jobs\/(\d+)/)[1]);
const page = await ines.evaluate(async (id) => {
  const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
  const call = async (method, path, body) =>
    (
      await fetch(path, {
        method,
        headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
        body: body && JSON.stringify(body),
      })
    ).json();
  const house = await call('GET', '/api/setup/house');
  await call('PUT', '/api/setup/house', { ...house, outsideAddress: location.origin });
  return (await call('POST', `/api/jobs/${id}/private-page`)).address;
}, job);
const owner = await (
  await browser.newContext({ viewport: { width: 390, height: 844 }, javaScriptEnabled: false })
).newPage();
await owner.goto(page);
await owner.locator('input[name=agree]').first().check();
await keep(owner, 'owner-page');
await ines.goto(`${address}/letters`);
await ines.waitForSelector('.reminders');
await ines.getByRole('button', { name: /^Send \d+ reminders/ }).click();
await ines.waitForSelector('.outbox');
await keep(ines, 'letters');
await ines.goto(`${address}/engines/ZEL-32V`);
await ines.waitForSelector('.book-path');
await ines.getByRole('heading', { name: 'Cards of this book' }).scrollIntoViewIfNeeded();
await ines.mouse.wheel(0, 300);
await ines.waitForTimeout(300);
await keep(ines, 'engine');
await ines.goto(`${address}/setup`);
await ines.waitForSelector('.frontier svg');
await ines.waitForTimeout(500);
await keep(ines, 'policy');
await ines.goto(`${address}/engines/new?like=e01`);
await ines.getByText('Water pump, turned by the belt').click();
await ines.getByLabel('Short code').fill('CAL-14');
await ines.getByLabel('Name, as you call it').fill('Calder 1.4');
await ines.getByLabel('Timing belt: limit, km').fill('160 km');
await ines.getByLabel('Timing belt: limit, months').fill('5 years');
await keep(ines, 'new-family');
await ines.goto(`${address}/setup/import`);
await ines.locator('#file').setInputFiles({
  name: 'liste.csv',
  mimeType: 'text/csv',
  // as an office program of a decimal comma writes it: Windows letters, an e with an accent among them
  buffer: Buffer.from(
    'Vehicles, November;;;;;;\nPlate;Vehicle;Owner;First registration;km;Read on;Engine\n' +
      [1, 2, 3, 4, 5]
        .map((i) => `SKR 9${i} N;Calder Dunlin;Ren\xe9e Nance;30.04.201${i};6${i}.785;03.11.2026;Calder 1.6\n`)
        .join('') +
      'SKR 96 N;Calder Dunlin;Odo Brack;soon;121.004,5;28.10.2026;Calder 1.6\n',
    'latin1',
  ),
});
await ines.waitForSelector('.import-counts');
await keep(ines, 'import');
await ines.goto(`${address}/month`);
await ines.waitForSelector('.carried', { timeout: 30_000 });
await keep(ines, 'month');
// an estimate for a taxi, for the fleet's contact to answer
await ines.evaluate(async () => {
  const token = decodeURIComponent(document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1]);
  const call = async (method, path, body) =>
    (
      await fetch(path, {
        method,
        headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token },
        body: body && JSON.stringify(body),
      })
    ).json();
  const fleet = (await call('GET', '/api/fleets')).find((f) => f.name === 'Harbour taxis');
  const taxi = (await call('GET', `/api/fleets/${fleet.id}`)).vehicles.find((v) => !v.plannedOn);
  const job = await call('POST', '/api/jobs', { vehicleId: taxi.vehicleId });
  await call('POST', `/api/jobs/${job.id}/estimates`, {});
});
const jory = await window('jory', 1280, 800);
await jory.goto(`${address}/fleets`);
await jory.waitForSelector('.own-estimate');
await keep(jory, 'own');

const hedra = await window('hedra', 1024, 768);
await hedra.goto(`${address}/jobs`);
await hedra.locator('.job-row', { hasText: 'Zelah' }).getByText('go on', { exact: true }).click();
await hedra.waitForSelector('.why-here');
await keep(hedra, 'card');
await hedra.goto(`${address}/jobs`);
await hedra.getByText('card', { exact: true }).first().click();
await hedra.waitForSelector('.sign');
await keep(hedra, 'card-signed');
await browser.close();

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { sent, serve, show } from '../../test/render';
import Policy from './PolicyForm';

const workshop = {
  name: 'Holm Motors',
  currency: 'EUR',
  policy: 'EARLY',
  earlyShare: 0.95,
  riskInterference: 0.1,
  riskOther: 0.5,
  horizonDays: 120,
  unknownRule: 'DUE_NOW',
  statedCounts: true,
  labourRateMinor: 9_000,
  recoveryMinor: 18_000,
  dayOffRoadMinor: 6_500,
  daysOffRoad: 6,
  shareFailedAtLimits: 0.02,
  wearShape: 4,
  school: 'OPTIMUM',
  seals: 'WHEN_WET',
  stranding: 10_000,
  visit: 90,
  visitsPerYear: 1,
  version: 3,
  changedBy: '',
  changedAt: '2026-11-25T09:00:00Z',
  changes: [],
} as unknown as Schemas['WorkshopView'];

const year = (breakdowns: number, costMinor: number) => ({
  breakdowns,
  jobs: 40,
  atVisits: 6,
  pastTheBook: 1.5,
  costMinor,
  hours: 120,
});

const outlook: Schemas['FrontierView'] = {
  vehicles: 1_200,
  reckoned: 400,
  leftOut: 7,
  early: [
    { amount: 1, year: year(0.8, 2_500_000) },
    { amount: 0.9, year: year(0.5, 2_700_000) },
  ],
  careful: [
    { amount: 0, year: year(0.7, 2_450_000) },
    { amount: 10_000, year: year(0.6, 2_500_000) },
    { amount: 20_000, year: year(0.4, 2_600_000) },
  ],
  now: year(0.65, 2_600_000),
  proposed: year(0.6, 2_500_000),
  currency: 'EUR',
};

const kept = (calls: Parameters<typeof sent>[0]) => sent(calls).filter((c) => c.method === 'PUT');

async function labour(text: string) {
  const calls = serve({
    'GET /api/desk/choices': { body: { usual: { RATE_SHARE: { low: 0.25, high: 4 } } } },
    'GET /api/setup/workshop': { body: workshop },
    'PUT /api/setup/workshop': { body: workshop },
    'POST /api/setup/workshop/outlook': { body: outlook },
  });
  show(<Policy />);
  fireEvent.change(await screen.findByLabelText('Labour'), { target: { value: text } });
  return calls;
}

it('takes an hour of labour with a decimal comma for what it is', async () => {
  const calls = await labour('97,50');
  fireEvent.click(screen.getByText('Keep these figures'));
  await waitFor(() => expect(kept(calls)[0]?.body).toMatchObject({ labourRateMinor: 9_750 }));
});

it('asks before it believes in nine thousand an hour', async () => {
  const calls = await labour('9,850');
  expect(await screen.findByText('Far from usual.')).toBeTruthy();
  fireEvent.click(screen.getByText('Keep these figures'));
  expect(kept(calls)).toHaveLength(0);
  fireEvent.click(screen.getByText('Yes, 9,850'));
  fireEvent.click(screen.getByText('Keep these figures'));
  await waitFor(() => expect(kept(calls)[0]?.body).toMatchObject({ labourRateMinor: 985_000 }));
});

it('says what a policy means in a year, and takes the price of a stranding from the drawing', async () => {
  const calls = await labour('97');
  const ring = await screen.findByRole('slider');
  expect(screen.getByText('Breakdowns expected').closest('tr')?.textContent).toContain('0.650.6');
  expect(screen.getByText(/Reckoned on 400 of 1,200 vehicles/)).toBeTruthy();
  fireEvent.keyDown(ring, { key: 'ArrowRight' });
  expect(await screen.findByLabelText('A stranding is worth, beyond its bills')).toHaveProperty(
    'value',
    '12000',
  );
  fireEvent.click(screen.getByText('Keep these figures'));
  await waitFor(() =>
    expect(kept(calls)[0]?.body).toMatchObject({ policy: 'CAREFUL', stranding: 12_000 }),
  );
});

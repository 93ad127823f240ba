import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import Month from './Month';

const job = (jobId: number, registration: string, timeliness: string, more: object = {}) => ({
  jobId,
  vehicleId: jobId + 100,
  registration,
  makeModel: 'Test',
  ownerName: 'Owner',
  familyCode: 'CAL-16',
  familyName: 'Calder 1.6',
  personId: 4,
  person: 'Perran',
  on: '2026-11-10',
  km: 120_000,
  inspection: false,
  timeliness,
  timelinessWords: timeliness === 'AFTER_LIMIT' ? 'past a limit' : 'by its act-by day',
  bookMinutes: 300,
  ...more,
});

const hours = {
  code: '4',
  name: 'Perran',
  jobs: 2,
  counted: 1,
  bookMinutes: 300,
  takenMinutes: 330,
};

const view = {
  month: '2026-11-01',
  over: false,
  words: ['Jobs signed in Nov 2026: 2.'],
  jobs: [
    job(1, 'A 1', 'BEFORE_ACT_BY', {
      takenMinutes: 330,
      takenMinor: 50_000,
      estimatedMinor: 45_000,
    }),
    job(2, 'B 2', 'AFTER_LIMIT', { againId: 9, againWhy: 'it squeals' }),
  ],
  timeliness: [
    { timeliness: 'BEFORE_ACT_BY', words: 'by its act-by day', jobs: 1 },
    { timeliness: 'AFTER_LIMIT', words: 'past a limit', jobs: 1 },
    { timeliness: 'NO_RECORD', words: 'nothing to count from', jobs: 0 },
  ],
  byFamily: [{ ...hours, code: 'CAL-16', name: 'Calder 1.6' }],
  byPerson: [hours],
  money: { jobs: 1, left: 1, estimatedMinor: 45_000, takenMinor: 50_000, differenceMinor: 5_000 },
  noes: [
    {
      vehicleId: 5,
      registration: 'C 3',
      what: 'the whole work',
      on: '2026-11-09',
      by: 'Owner',
      told: 'it may bend valves',
      became: 'BROKE_DOWN',
      becameWords: 'broke down since',
    },
  ],
  rechecks: [],
  breakdowns: [],
  coming: [
    {
      month: '2026-11-01',
      vehicles: [{ vehicleId: 7, registration: 'D 4' }],
      planned: 0,
      minutes: 360,
      likelyMinor: 70_000,
    },
  ],
};

const exposure = [
  { on: '2026-11-01', perDayMinor: 600 },
  { on: '2026-11-29', perDayMinor: 8_000 },
];

function open(address = '/month') {
  const calls = serve({
    ...manager,
    'GET /api/month': { body: view },
    'GET /api/month/exposure': { body: exposure },
  });
  show(
    <Routes>
      <Route path="/month" element={<Month />} />
    </Routes>,
    address,
    true,
  );
  return calls;
}

const listed = () => {
  const table = screen
    .getAllByRole('table')
    .find((t) => within(t).queryByRole('columnheader', { name: 'Odometer' }))!;
  return within(table)
    .getAllByRole('row')
    .slice(1)
    .map((r) => within(r).getByText(/^[A-Z] \d$/).textContent);
};

it('opens from each figure the jobs it counts', async () => {
  open();
  await screen.findByText('Jobs signed in Nov 2026: 2.');
  expect(listed()).toEqual(['A 1', 'B 2']);
  const past = screen.getByRole('row', { name: /^past a limit 1/ });
  fireEvent.click(within(past).getByRole('button', { name: '1' }));
  expect(listed()).toEqual(['B 2']);
  expect(screen.getByRole('heading', { name: /Done past a limit: 1/ })).toBeTruthy();
  expect(screen.getByText(/it squeals/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'All of the month' }));
  expect(listed()).toEqual(['A 1', 'B 2']);
  const money = screen.getByRole('row', { name: /€450.00 €500.00 €50.00 over/ });
  fireEvent.click(within(money).getAllByRole('button')[0]!);
  expect(listed()).toEqual(['A 1']);
  expect(screen.getByText('broke down since', { selector: 'b' })).toBeTruthy();
  expect(
    await screen.findByRole('img', { name: /€6.00 a day on 1 Nov 2026, €80.00/ }),
  ).toBeTruthy();
});

it('asks for the month before with the filters that stand in the address', async () => {
  const calls = open('/month?person=4');
  await screen.findByText('Jobs signed in Nov 2026: 2.');
  expect(screen.queryByRole('button', { name: 'The month after' })).toBeNull();
  expect(screen.getByRole('link', { name: 'Jobs as CSV' }).getAttribute('href')).toBe(
    '/api/month/jobs.csv?person=4',
  );
  fireEvent.click(screen.getByRole('button', { name: 'The month before' }));
  await waitFor(() =>
    expect(screen.getByRole('link', { name: 'Jobs as CSV' }).getAttribute('href')).toBe(
      '/api/month/jobs.csv?month=2026-10&person=4',
    ),
  );
  expect(calls.filter((c) => c.path === '/api/month')).toHaveLength(2);
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import Fleet from './Fleet';

const sum = (vehicles: number) => ({
  vehicles,
  planned: 0,
  minutes: 300 * vehicles,
  lowMinor: 58_000 * vehicles,
  likelyMinor: 60_000 * vehicles,
  highMinor: 66_000 * vehicles,
  offRoadDays: vehicles,
});
const month = (m: string, vehicleIds: number[]) => ({
  month: m,
  sum: sum(vehicleIds.length),
  reachedEarly: 2,
  reachedMedian: 1,
  reachedLate: 0,
  spare: 1,
  over: vehicleIds.length > 1,
  vehicleIds,
});
const vehicle = (vehicleId: number, registration: string) => ({
  vehicleId,
  registration,
  makeModel: 'Test',
  status: 'COMING',
  statusWords: 'Coming',
  dueNow: false,
  minutes: 300,
  lowMinor: 58_000,
  likelyMinor: 60_000,
  highMinor: 66_000,
  offRoadDays: 1,
});

const page = {
  id: 3,
  name: 'Post vans',
  contactName: 'Jory',
  phone: '0555 1',
  offRoadCap: 1,
  taxShare: 0.19,
  words: ['In the next twelve months 3 of 3 vehicles come due.'],
  year: sum(3),
  doneThisMonth: 0,
  months: [month('2026-11-01', [1, 2]), month('2026-12-01', [3]), month('2027-01-01', [])],
  vehicles: [
    vehicle(1, 'A 1'),
    { ...vehicle(2, 'B 2'), actBy: '2026-11-30', forwardFrom: '2027-03-12' },
    vehicle(3, 'C 3'),
  ],
  beyond: 0,
  without: 0,
};

const past = {
  year: 2026,
  jobs: 3,
  renewals: 2,
  inTime: 1,
  inTimeShare: 0.5,
  pastLimit: 1,
  counted: 2,
  takenMinutes: 660,
  takenMinor: 120_000,
  slipped: ['A 1'],
};

const move = (vehicleId: number, registration: string, costMinor: number) => ({
  ...vehicle(vehicleId, registration),
  from: '2026-12-01',
  to: '2026-11-01',
  costMinor,
});

const level = {
  words: ['Bring two vehicles forward.'],
  moves: [move(1, 'A 1', 1_200), move(3, 'C 3', 800)],
  months: [
    { month: '2026-11-01', spare: 3, daysLeft: 1, daysLevel: 3, minutesLeft: 1, minutesLevel: 3 },
    { month: '2026-12-01', spare: 1, daysLeft: 3, daysLevel: 1, minutesLeft: 3, minutesLevel: 1 },
  ],
  costMinor: 2_000,
  leastMinor: 2_000,
  best: true,
};

const fleet = (answers: Parameters<typeof serve>[0]) => {
  const calls = serve({
    ...manager,
    'GET /api/fleets/3': { body: page },
    'GET /api/fleets/3/past': { body: [past] },
    ...answers,
  });
  show(
    <Routes>
      <Route path="/fleets/:id" element={<Fleet />} />
    </Routes>,
    '/fleets/3',
    true,
  );
  return calls;
};

describe('levelling', () => {
  it('shows who would go sooner, and brings forward only what was left ticked', async () => {
    const calls = fleet({
      'GET /api/fleets/3/level': { body: level },
      'POST /api/fleets/3/level': { body: page },
    });
    fireEvent.click(await screen.findByRole('button', { name: 'Level the months…' }));
    await screen.findByText('Bring two vehicles forward.');
    expect(
      screen.getByRole('img', { name: /Nov 2026: 1, level 3; Dec 2026: 3, level 1/ }),
    ).toBeTruthy();
    fireEvent.click(screen.getByRole('checkbox', { name: 'Bring A 1 forward' }));
    fireEvent.click(screen.getByRole('button', { name: 'Bring 1 vehicle forward, for €8.00' }));
    await waitFor(() => expect(sent(calls)).toHaveLength(1));
    expect(sent(calls)[0]!.body).toEqual({
      moves: [{ vehicleId: 3, from: '2026-12-01', to: '2026-11-01' }],
    });
  });

  it('says at its field which hours cannot be, and leaves a vehicle in its own month again', async () => {
    const calls = fleet({
      'GET /api/fleets/3/level': problem('/hours', 'Hours a month are above zero.'),
      'DELETE /api/fleets/3/level/2': { body: page },
    });
    fireEvent.click(await screen.findByRole('button', { name: 'Level the months…' }));
    expect(await screen.findByText(/above zero/, { selector: '.field-note' })).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Leave B 2 in its own month' }));
    await waitFor(() => expect(sent(calls)).toHaveLength(1));
  });
});

describe('a fleet by month', () => {
  it('lists what a month holds when it is chosen, and says in words where it is too much', async () => {
    fleet({});
    await screen.findByText('In the next twelve months 3 of 3 vehicles come due.');
    const december = screen.getByRole('button', { name: /^Dec .*, 2026: 1 vehicle,/ });
    fireEvent.keyDown(december, { key: 'Enter' });
    expect(december.getAttribute('aria-pressed')).toBe('true');
    const list = screen.getAllByRole('table')[0]!;
    expect(within(list).getByText('C 3')).toBeTruthy();
    expect(within(list).queryByText('A 1')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'All months' }));
    expect(within(screen.getAllByRole('table')[0]!).getByText('A 1')).toBeTruthy();
    const november = screen.getByRole('row', { name: /^Nov 2026/ });
    expect(november.textContent).toContain('over 2 of 1');
    expect(november.textContent).toContain('10.0 h');
    expect(screen.getByRole('row', { name: /Next twelve months/ }).textContent).toContain('15.0 h');
    const year = await screen.findByRole('row', { name: /^2026 3/ });
    expect(year.textContent).toContain('1 of 2, 50 %');
    expect(year.textContent).toContain('11.0 hof 2 jobs on file€1,200.00');
  });
});

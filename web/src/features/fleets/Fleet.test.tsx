import { fireEvent, screen, within } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
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

describe('a fleet by month', () => {
  it('lists what a month holds when it is chosen, and says in words where it is too much', async () => {
    serve({
      ...manager,
      'GET /api/fleets/3': {
        body: {
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
          vehicles: [vehicle(1, 'A 1'), vehicle(2, 'B 2'), vehicle(3, 'C 3')],
          beyond: 0,
          without: 0,
        },
      },
    });
    show(
      <Routes>
        <Route path="/fleets/:id" element={<Fleet />} />
      </Routes>,
      '/fleets/3',
      true,
    );
    await screen.findByText('In the next twelve months 3 of 3 vehicles come due.');
    const december = screen.getByRole('button', { name: /Dec 2026: 1 vehicle,/ });
    fireEvent.keyDown(december, { key: 'Enter' });
    expect(december.getAttribute('aria-pressed')).toBe('true');
    const list = screen.getAllByRole('table')[0]!;
    expect(within(list).getByText('C 3')).toBeTruthy();
    expect(within(list).queryByText('A 1')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'All months' }));
    expect(within(screen.getAllByRole('table')[0]!).getByText('A 1')).toBeTruthy();
    const november = screen.getByRole('row', { name: /Nov 2026/ });
    expect(november.textContent).toContain('over 2 of 1');
    expect(november.textContent).toContain('10.0 h');
    expect(screen.getByRole('row', { name: /Next twelve months/ }).textContent).toContain('15.0 h');
  });
});

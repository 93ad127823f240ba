import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { serve, show } from '../../test/render';
import Ahead from './Ahead';

const view = {
  today: '2026-11-25',
  date: '2027-02-23',
  vehicles: 2,
  without: 1,
  past: 0,
  atDistance: 1,
  atAge: 0,
  minutes: 300,
  moneyMinor: 64_000,
  marks: {
    vehicleId: [5, 6],
    registration: ['SKR 5', 'SKR 6'],
    age: [500, 200],
    distance: [1020, 300],
    ageToday: [450, 150],
    distanceToday: [980, 280],
    interference: [1, 0],
    crossing: [1, 0],
    wall: [0, 0],
  },
  next: { date: '2027-03-14', vehicles: 1 },
  words: ['Two vehicles stand in the window.'],
};
const row = {
  vehicleId: 5,
  registration: 'SKR 5',
  ownerName: 'Ruan Keast',
  makeModel: 'Windle Lark 1.5',
  status: 'ACT_NOW',
  statusWords: 'Act now',
  wall: 'DISTANCE',
  crosses: '2027-01-04',
  minutes: 300,
  moneyMinor: 64_000,
};

function ahead(path = '/ahead') {
  const calls = serve({
    'GET /api/me': {
      body: {
        role: 'MANAGER',
        today: '2026-11-25',
        currency: 'EUR',
        unit: 'KM',
        numbers: 'COMMA_POINT',
        zone: 'UTC',
      },
    },
    'GET /api/desk/choices': { body: { fleets: [], drives: [], families: [], states: [] } },
    'GET /api/ahead': { body: view },
    'GET /api/ahead/vehicles': {
      body: { total: 1, offset: 0, minutes: 300, moneyMinor: 64_000, rows: [row] },
    },
  });
  show(<Ahead />, path, true);
  return calls;
}

describe('Ahead', () => {
  it('looks 90 days on, in a picture, in words and as a list with hours and money', async () => {
    ahead();
    expect((await screen.findByLabelText<HTMLInputElement>('On')).value).toBe('23 Feb 2027');
    await screen.findByText('1 of 2 cross a limit by 23 Feb 2027');
    expect(screen.getByText('Two vehicles stand in the window.')).toBeTruthy();
    expect(screen.getByRole('img', { name: /Two vehicles stand/ }).tagName).toBe('CANVAS');
    expect(await screen.findByText('1 cross by 23 Feb 2027')).toBeTruthy();
    expect(screen.getByText('SKR 5').closest('.cross-row')!.textContent).toContain('5.0 h');
    expect(screen.getByText('by distance')).toBeTruthy();
  });

  it('moves by weeks and to the next that crosses, never before today', async () => {
    ahead();
    const day = await screen.findByLabelText<HTMLInputElement>('On');
    await screen.findByText(/Two vehicles/);
    fireEvent.click(screen.getByRole('button', { name: 'A week on' }));
    expect(day.value).toBe('2 Mar 2027');
    fireEvent.click(screen.getByRole('button', { name: /^Next to cross/ }));
    expect(day.value).toBe('14 Mar 2027');
    fireEvent.keyDown(document.body, { key: 'ArrowLeft' });
    expect(day.value).toBe('7 Mar 2027');
    fireEvent.change(day, { target: { value: '2020-01-01' } });
    expect(screen.getByText('Not before 25 Nov 2026.')).toBeTruthy();
  });

  it('lists a box that stands in the address, and leads back', async () => {
    ahead('/ahead?ageFrom=0.4&ageTo=0.9&distanceFrom=0&distanceTo=1');
    await screen.findByText('1 in the box');
    fireEvent.click(screen.getByText('Back to those that cross'));
    await waitFor(() => expect(screen.getByText('1 cross by 23 Feb 2027')).toBeTruthy());
  });
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { problem, sent, serve, show } from '../../test/render';
import { ReadingFeeds } from './ReadingFeeds';

const feed = {
  id: 4,
  fleetName: 'Post vans',
  name: 'Units in the vans',
  silentDays: 3,
  standIn: false,
  folder: '/data/readings/4-units',
  madeAt: '2026-11-01T08:00:00Z',
  madeBy: 'Ines Carrow',
  lastHeard: '2026-11-20T08:00:00Z',
  silentSince: '2026-11-20T08:00:00Z',
  refused: [
    { at: '2026-11-20T08:00:00Z', vehicle: 'SKR 1 A', what: '12 km', why: '12 km runs backwards.' },
  ],
};

it('says what is silent and what was not taken, and ends a feed', async () => {
  const calls = serve({
    'GET /api/setup/reading-feeds': { body: { feeds: [feed] } },
    'DELETE /api/setup/reading-feeds/4': { body: { feeds: [] } },
  });
  show(<ReadingFeeds />);
  expect(await screen.findByText(/silent for more than 3 days/)).toBeTruthy();
  expect(screen.getByText('12 km runs backwards.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'End it…' }));
  fireEvent.click(await screen.findByRole('button', { name: 'End the feed' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(await screen.findByText('None.')).toBeTruthy();
});

it('shows the key of a new feed the once, with how it is used', async () => {
  let refused = true;
  const calls = serve({
    'GET /api/setup/reading-feeds': { body: { feeds: [] } },
    'GET /api/setup/fleets': { body: [{ id: 2, name: 'Post vans' }] },
    'GET /api/fleets': { body: [{ id: 2, name: 'Post vans' }] },
    'POST /api/setup/reading-feeds': () =>
      refused ? problem('/fleetId', 'Choose a fleet.') : { body: { key: 'k3y', feeds: [feed] } },
  });
  show(<ReadingFeeds />);
  fireEvent.click(await screen.findByRole('button', { name: 'Add a feed' }));
  fireEvent.change(screen.getByLabelText('What sends them'), { target: { value: 'Units' } });
  fireEvent.click(screen.getByRole('button', { name: 'Make it' }));
  expect(await screen.findByText('Choose a fleet.')).toBeTruthy();
  refused = false;
  fireEvent.click(screen.getByRole('button', { name: 'Make it' }));
  const key = await screen.findByLabelText<HTMLInputElement>('The feed’s key, shown this once');
  expect(key.value).toBe('k3y');
  expect(screen.getByText(/Authorization: Bearer/)).toBeTruthy();
  expect(sent(calls)[1]!.body).toMatchObject({ name: 'Units', silentDays: 3, standIn: false });
});

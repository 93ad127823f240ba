import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import Needs from './Needs';
import Orders from './Orders';
import ToolSets from './ToolSets';

const stores: Schemas['StoresView'] = {
  today: '2026-12-01',
  nextFerry: '2026-12-01',
  needs: [
    {
      jobId: 7,
      registration: 'SKR 418 D',
      makeModel: 'Calder Dunlin 1.6',
      start: '2026-12-03T08:00:00',
      ready: false,
      lines: [
        { part: 'P-1', name: 'Timing belt', supply: 'TO_ORDER', day: '2026-12-04', late: true },
        { part: 'P-2', name: 'Tensioner', supply: 'IN_HOUSE', late: false },
      ],
    },
  ],
  shorts: [
    {
      part: 'P-1',
      name: 'Timing belt',
      pieces: 2,
      inHouse: 0,
      late: true,
      here: '2026-12-04',
      priceMinor: 3_900,
      jobs: [{ jobId: 7, registration: 'SKR 418 D' }],
    },
    {
      part: 'P-3',
      name: 'Idler',
      pieces: 1,
      inHouse: 1,
      orderBy: '2026-12-07',
      late: false,
      here: '2026-12-04',
      priceMinor: 1_950,
      jobs: [{ jobId: 7, registration: 'SKR 418 D' }],
    },
  ],
  orders: [
    {
      id: 3,
      part: 'P-4',
      name: 'Water pump',
      pieces: 1,
      priceMinor: 6_400,
      orderedOn: '2026-11-30',
      orderedBy: 'Ines Carrow',
      promised: '2026-12-01',
      expected: '2026-12-04',
      version: 1,
    },
  ],
  toolSets: [
    {
      familyCode: 'CAL-16',
      family: 'Calder 1.6',
      name: '',
      pieces: [{ name: 'crank pin', count: 2, use: 'crank' }],
      copies: [
        {
          id: 5,
          number: 1,
          state: 'GOOD',
          stateWords: 'good',
          usable: true,
          keptAt: 'tool store',
          note: '',
          version: 2,
          with: 'SKR 036 U, Bay 2',
        },
      ],
      bookings: [{ jobId: 8, registration: 'SKR 207 K', actBy: '2026-10-06' }],
      waiting: 1,
      clash: true,
    },
  ],
  states: [
    { state: 'GOOD', words: 'good' },
    { state: 'BROKEN', words: 'broken' },
  ],
};

const served = (more = {}) => serve({ ...manager, 'GET /api/stores': { body: stores }, ...more });

it('orders the ticked short parts for their sum', async () => {
  const calls = served({ 'POST /api/stores/orders': { body: { ...stores, shorts: [] } } });
  show(<Needs />, '/stores', true);
  expect(await screen.findByText('too late for its job')).toBeTruthy();
  expect(screen.getByText(/to order, Fri 4 Dec, after its start/)).toBeTruthy();
  expect(screen.queryByText('Tensioner')).toBeNull();
  expect(screen.getByText('Order 2 parts, €97.50')).toBeTruthy();
  fireEvent.click(screen.getByLabelText('Order P-3'));
  fireEvent.click(screen.getByText('Order 1 part, €78.00'));
  expect(await screen.findByText(/Nothing is short/)).toBeTruthy();
  expect(sent(calls)[0]?.body).toEqual({ lines: [{ part: 'P-1', pieces: 2 }] });
});

it('says when an order is later than promised and takes it in', async () => {
  const calls = served({
    'POST /api/stores/orders/3/arrived': { body: { ...stores, orders: [] } },
  });
  show(<Orders />, '/stores/orders', true);
  expect(await screen.findByText('was promised for Tue 1 Dec')).toBeTruthy();
  fireEvent.click(screen.getByText('It is here'));
  expect(await screen.findByText(/Nothing is on order/)).toBeTruthy();
  expect(sent(calls)[0]?.path).toBe('/api/stores/orders/3/arrived');
});

it('shows where a tool set is, that a due job waits for it, and asks what is wrong with a broken one', async () => {
  const calls = served({
    'PUT /api/stores/tool-sets/5': problem('/note', 'Say what is wrong.'),
  });
  show(<ToolSets />, '/stores/tool-sets', true);
  expect(await screen.findByText(/with SKR 036 U, Bay 2/)).toBeTruthy();
  expect(screen.getByText('1 job waits for it while others have it')).toBeTruthy();
  expect(screen.getByText('2 × crank pin')).toBeTruthy();
  fireEvent.click(screen.getByText('Change'));
  fireEvent.click(screen.getByText('Keep'));
  expect(await screen.findByText('Say what is wrong.')).toBeTruthy();
  await waitFor(() => expect(sent(calls)[0]?.body).toMatchObject({ state: 'GOOD', version: 2 }));
});

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
  version: 3,
  changedBy: '',
  changedAt: '2026-11-25T09:00:00Z',
  changes: [],
} as unknown as Schemas['WorkshopView'];

async function labour(text: string) {
  const calls = serve({
    'GET /api/desk/choices': { body: { usual: { RATE_SHARE: { low: 0.25, high: 4 } } } },
    'GET /api/setup/workshop': { body: workshop },
    'PUT /api/setup/workshop': { body: workshop },
  });
  show(<Policy />);
  fireEvent.change(await screen.findByLabelText('Labour'), { target: { value: text } });
  return calls;
}

it('takes an hour of labour with a decimal comma for what it is', async () => {
  const calls = await labour('97,50');
  fireEvent.click(screen.getByText('Keep these figures'));
  await waitFor(() => expect(sent(calls)[0]?.body).toMatchObject({ labourRateMinor: 9_750 }));
});

it('asks before it believes in nine thousand an hour', async () => {
  const calls = await labour('9,850');
  expect(await screen.findByText('Far from usual.')).toBeTruthy();
  fireEvent.click(screen.getByText('Keep these figures'));
  expect(sent(calls)).toHaveLength(0);
  fireEvent.click(screen.getByText('Yes, 9,850'));
  fireEvent.click(screen.getByText('Keep these figures'));
  await waitFor(() => expect(sent(calls)[0]?.body).toMatchObject({ labourRateMinor: 985_000 }));
});

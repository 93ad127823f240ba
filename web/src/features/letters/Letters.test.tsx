import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import Letters from './Letters';

const ways = [
  { channel: 'EMAIL', words: 'by e-mail' },
  { channel: 'LETTER', words: 'by letter' },
];

const letter = (ownerId: number, ownerName: string, suggested?: string, of = ways) => ({
  ownerId,
  ownerName,
  prefersWords: suggested ? 'by e-mail' : 'by phone',
  phone: '0555 1',
  suggested,
  ways: of,
  lines: [
    {
      vehicleId: ownerId * 10,
      registration: `SKR ${ownerId}`,
      makeModel: 'Test vehicle',
      actBy: '2026-12-24',
      why: 'coming, act by 24 Dec 2026; first reminder',
    },
  ],
});

const batch = (...letters: unknown[]) => ({
  weeksBefore: 6,
  weeksBetween: 3,
  most: 3,
  letters,
  kept: [
    {
      vehicleId: 99,
      registration: 'SKR 99',
      ownerName: 'Gerren Hendra',
      actBy: '2026-12-01',
      whyWords: 'a job is open',
    },
  ],
  later: 12,
});

const message = (id: number, more: object) => ({
  id,
  kindWords: 'reminder',
  channel: 'EMAIL',
  channelWords: 'by e-mail',
  toName: `Owner ${id}`,
  toPlace: 'a@home.example',
  subject: 'Your timing belt or chain',
  body: 'Dear owner',
  state: 'WAITING',
  stateWords: 'waits',
  failure: '',
  madeAt: '2026-11-25T09:00:00Z',
  madeBy: 'Ines Carrow',
  changedAt: '2026-11-25T09:00:00Z',
  vehicles: [],
  ...more,
});

const outbox = (open: unknown[] = [], ended: unknown[] = []) => ({
  body: { mailServer: false, folder: '/data/outbox', open, ended },
});

function letters(answers: Parameters<typeof serve>[0]) {
  const calls = serve({ ...manager, ...answers });
  show(<Letters />, '/letters', true);
  return calls;
}

it('sends what is ticked, by the way that is chosen, and leaves those who would rather be rung', async () => {
  const first = batch(
    letter(1, 'Åse Bø', 'EMAIL'),
    letter(2, 'Tamsin Orde'),
    letter(3, 'Corin Pell', undefined, []),
  );
  const calls = letters({
    'GET /api/letters/reminders': { body: first },
    'GET /api/outbox': outbox(),
    'GET /api/letters/reminders/1': { body: { subject: 'Your belt', body: 'Dear Åse Bø' } },
    'POST /api/letters/reminders': { body: { sent: 1, left: batch(letter(2, 'Tamsin Orde')) } },
  });
  expect(await screen.findByLabelText('Send to Åse Bø')).toHaveProperty('checked', true);
  expect(screen.getByLabelText('Send to Tamsin Orde')).toHaveProperty('checked', false);
  expect(screen.getByLabelText('Send to Corin Pell')).toHaveProperty('disabled', true);
  expect(screen.getByText('ring: no address on file')).toBeTruthy();
  expect(screen.getByText('1 e-mail')).toBeTruthy();
  fireEvent.click(screen.getAllByRole('button', { name: 'Read it' })[0]!);
  expect(await screen.findByText('Dear Åse Bø')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Send 1 reminder' }));
  expect(await screen.findByText(/1 is on the way/)).toBeTruthy();
  expect(sent(calls)[0]!.body).toEqual({
    letters: [{ ownerId: 1, channel: 'EMAIL', vehicles: [10] }],
  });
  expect(screen.queryByText('Åse Bø')).toBeNull();
  expect(screen.getByText(/1 more are within that time|1 more/)).toBeTruthy();
});

it('says that somebody else has sent them', async () => {
  letters({
    'GET /api/letters/reminders': { body: batch(letter(1, 'Åse Bø', 'EMAIL')) },
    'GET /api/outbox': outbox(),
    'POST /api/letters/reminders': problem('/', 'Åse Bø is not written to as was shown.'),
  });
  fireEvent.click(await screen.findByRole('button', { name: 'Send 1 reminder' }));
  expect(await screen.findByText(/not written to as was shown/)).toBeTruthy();
});

it('offers for each message what can be done with it', async () => {
  const calls = letters({
    'GET /api/letters/reminders': { body: { ...batch(), kept: [] } },
    'GET /api/outbox': outbox(
      [
        message(1, { state: 'FAILED', stateWords: 'could not go', failure: 'refused' }),
        message(2, { state: 'UNSURE', stateWords: 'may have gone' }),
        message(3, { channel: 'LETTER', channelWords: 'by letter', stateWords: 'to print' }),
      ],
      [message(4, { channel: 'LETTER', state: 'SENT', stateWords: 'printed' })],
    ),
    'POST /api/outbox/1/again': outbox(),
    'POST /api/outbox/2/gone': outbox(),
    'POST /api/outbox/3/take-back': outbox(),
  });
  expect(await screen.findByRole('button', { name: 'Print 1 letter in one file' })).toBeTruthy();
  expect(screen.getByText('refused')).toBeTruthy();
  expect(screen.getByText(/12 come later/)).toBeTruthy();
  expect(screen.getByRole('button', { name: 'Owner 4: print again' })).toBeTruthy();
  const row = (name: string) => within(screen.getByText(name).closest('tr')!);
  const press = async (name: string, deed: string, count: number) => {
    fireEvent.click(row(name).getByRole('button', { name: `${name}: ${deed}` }));
    await waitFor(() => expect(sent(calls)).toHaveLength(count));
  };
  await press('Owner 1', 'Try again', 1);
  await press('Owner 2', 'It has gone', 2);
  await press('Owner 3', 'Take it back', 3);
  expect(sent(calls).map((c) => c.path)).toEqual([
    '/api/outbox/1/again',
    '/api/outbox/2/gone',
    '/api/outbox/3/take-back',
  ]);
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { OwnJobs } from './OwnJobs';

const line = (code: string, name: string, mayLeave: boolean) => ({
  code,
  name,
  lowMinor: 900,
  likelyMinor: 1_000,
  highMinor: 1_200,
  mayLeave,
  warning: `The ${name.toLowerCase()} stays as it is.`,
  open: true,
  stateWords: 'waits for you',
});

const job = {
  jobId: 6,
  vehicleId: 9,
  registration: 'A 1',
  makeModel: 'Van',
  stateWords: 'comes in',
  from: '2026-12-01T08:00:00',
  to: '2026-12-01T15:00:00',
  mayWish: true,
  days: [],
  version: 4,
  open: 2,
  estimate: {
    number: 2,
    madeOn: '2026-11-25',
    validUntil: '2026-12-25',
    expired: false,
    lines: [line('belt', 'Timing belt', false), line('seals', 'Cam seals', true)],
    othersMinor: 500,
    netMinor: 2_500,
    totalMinor: 3_000,
    plain: ['What waiting costs: the engine.'],
    refusal: 'What waiting costs: the engine.',
    mayRefuse: true,
  },
};

async function own(answers: Parameters<typeof serve>[0], shown: object = job) {
  const calls = serve({ ...manager, 'GET /api/own/jobs': { body: [shown] }, ...answers });
  show(<OwnJobs />, '/', true);
  await screen.findByText('A 1');
  return calls;
}

it('agrees to all lines at once, or leaves those that may be left with their warning in sight', async () => {
  const calls = await own({ 'POST /api/own/jobs/6/answer': { body: { ...job, open: 0 } } });
  expect(screen.getByText('1 waits for your answer')).toBeTruthy();
  expect(screen.getByText(/comes in: Tue 1 Dec, 08:00; ready about Tue 1 Dec, 15:00/)).toBeTruthy();
  const belt = screen.getByRole('radiogroup', { name: 'Timing belt' });
  expect(within(belt).getByLabelText('ring us to leave it')).toHaveProperty('disabled', true);
  expect(screen.queryByText('The cam seals stays as it is.')).toBeNull();
  const seals = screen.getByRole('radiogroup', { name: 'Cam seals' });
  fireEvent.click(within(seals).getByLabelText('leave'));
  expect(screen.getByText('The cam seals stays as it is.')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Agree to 1, leave 1' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(sent(calls)[0]!.body).toEqual({ number: 2, agree: ['belt'], leave: ['seals'] });
});

it('refuses the whole work only after what waiting costs was shown', async () => {
  const calls = await own({ 'POST /api/own/jobs/6/answer': { body: job } });
  fireEvent.click(screen.getByRole('button', { name: 'We do not want this work…' }));
  const yes = await screen.findByRole('button', { name: 'We do not want it' });
  expect(screen.getAllByText('What waiting costs: the engine.')).toHaveLength(2);
  expect(sent(calls)).toHaveLength(0);
  fireEvent.click(yes);
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(sent(calls)[0]!.body).toEqual({ number: 2, refused: true });
});

it('says of an estimate that is no longer valid whom to ring, and offers no answer', async () => {
  await own({}, { ...job, estimate: { ...job.estimate, expired: true } });
  expect(screen.getByText(/It was valid until 25 Dec 2026. Ring us/)).toBeTruthy();
  expect(screen.queryByRole('radiogroup')).toBeNull();
  expect(screen.queryByRole('button', { name: /^Agree/ })).toBeNull();
});

it('asks for other days, and says beside the field what cannot be', async () => {
  const calls = await own({
    'PUT /api/own/jobs/6/wishes': problem('/notBefore', 'That day has passed.'),
  });
  fireEvent.click(screen.getByRole('button', { name: 'Other days…' }));
  fireEvent.click(screen.getByLabelText('Tue'));
  fireEvent.click(screen.getByRole('button', { name: 'Ask for these days' }));
  expect(await screen.findByText(/That day has passed/, { selector: '.field-note' })).toBeTruthy();
  expect(sent(calls)[0]!.body).toMatchObject({ days: ['TUESDAY'], version: 4 });
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { BuildBar } from './BuildBar';

const job = {
  id: 6,
  version: 4,
  stage: 'DRAFT',
  lines: [],
  build: {
    school: 'WHAT_PAYS',
    ownSchool: false,
    seals: 'WHEN_WET',
    ownSeals: false,
    purpose: [],
    drive: 'belt',
    purposes: [
      { code: 'belt', name: 'Timing belt' },
      { code: 'tensioner', name: 'Tensioner' },
    ],
    nextOpening: '2032-11-25',
    until: 'Counted until 25 Nov 2032, the next belt job at this vehicle’s usage.',
    laterOn: '2027-02-01',
    schools: [
      { school: 'EVERYTHING', words: 'everything behind the cover' },
      { school: 'WHAT_PAYS', words: 'what pays' },
    ],
    variants: [
      {
        code: 'bolt',
        name: 'Crank bolt',
        howToTell: 'Measure the head.',
        choices: [{ code: 'm12', name: '17 mm head' }],
      },
    ],
    toolHireMinor: 0,
    bookVersion: 1,
    newestBook: 2,
    remarks: ['The torque of Cover bolts is not on file.'],
  },
} as unknown as Schemas['JobView'];

async function bar(answer: { status?: number; body: unknown } = { body: job }) {
  const calls = serve({
    ...manager,
    'PUT /api/jobs/6/scope': answer,
    'POST /api/jobs/6/newest-book': { body: job },
  });
  show(<BuildBar job={job} editable />, '/', true);
  await screen.findByText('Tool hire');
  return calls;
}

it('says until when money is counted, what is open and what to look at', async () => {
  const calls = await bar();
  expect(screen.getByText(/one later job on 1 Feb 2027/)).toBeTruthy();
  expect(screen.getByText(/order both, mark the spare/)).toBeTruthy();
  expect(screen.getByText(/not on file/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Take the newest' }));
  await waitFor(() => expect(sent(calls)[0]?.path).toBe('/api/jobs/6/newest-book'));
});

it('sends the school, the hire in minor units and the day the owner parts with it', async () => {
  const calls = await bar();
  fireEvent.click(screen.getByLabelText('everything behind the cover'));
  await waitFor(() => expect(sent(calls)[0]?.body).toMatchObject({ school: 'EVERYTHING' }));
  fireEvent.change(screen.getByLabelText('Tool hire'), { target: { value: '12,50' } });
  fireEvent.blur(screen.getByLabelText('Tool hire'));
  await waitFor(() => expect(sent(calls)[1]?.body).toMatchObject({ toolHireMinor: 1_250 }));
  fireEvent.change(screen.getByLabelText('Owner keeps it until'), {
    target: { value: '2027-03-01' },
  });
  fireEvent.blur(screen.getByLabelText('Owner keeps it until'));
  await waitFor(() => expect(sent(calls)[2]?.body).toMatchObject({ keptUntil: '2027-03-01' }));
});

it('does not send a hire that is no number, and says what the server does not take', async () => {
  const calls = await bar(problem('/keptUntil', 'The day lies in the past.'));
  fireEvent.change(screen.getByLabelText('Tool hire'), { target: { value: 'a lot' } });
  fireEvent.blur(screen.getByLabelText('Tool hire'));
  expect(sent(calls)).toHaveLength(0);
  fireEvent.change(screen.getByLabelText('Owner keeps it until'), {
    target: { value: '1 Mar 2020' },
  });
  fireEvent.blur(screen.getByLabelText('Owner keeps it until'));
  expect(screen.getByText(/^Not before/)).toBeTruthy();
  expect(sent(calls)).toHaveLength(0);
  fireEvent.change(screen.getByLabelText('Owner keeps it until'), {
    target: { value: '1.3.2099' },
  });
  fireEvent.blur(screen.getByLabelText('Owner keeps it until'));
  expect(await screen.findByText(/in the past/)).toBeTruthy();
});

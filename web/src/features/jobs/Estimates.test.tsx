import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { insistable, problem, sent, serve, show } from '../../test/render';
import { Estimates } from './Estimates';

const job = {
  id: 6,
  version: 4,
  stage: 'DRAFT',
  ownerName: 'Tamsin Orde',
  minutes: 300,
  helperMinutes: 0,
  labourMinor: 45_000,
  partsMinor: 20_000,
} as Schemas['JobView'];

const sums = {
  labourMinor: 45_000,
  partsMinor: 20_000,
  netMinor: 65_000,
  taxMinor: 13_000,
  taxShare: 0.2,
  totalMinor: 78_000,
  lowMinor: 72_000,
  highMinor: 92_000,
};

const asked = (code: string, name: string, ...said: unknown[]) => ({
  code,
  name,
  kind: 'ITEM',
  required: code !== 'seals',
  ownerSupplied: false,
  minutes: 6,
  partsMinor: 100,
  lowMinor: 900,
  likelyMinor: 1_000,
  highMinor: 1_200,
  asked: true,
  purpose: code === 'belt',
  state: said.length > 0 ? 'AGREED' : 'NOT_ASKED',
  stateWords: said.length > 0 ? 'agreed' : 'not asked',
  open: said.length === 0,
  said,
});

const agreed = {
  answer: 'AGREED',
  answerWords: 'agreed',
  saidBy: 'Tamsin Orde',
  on: '2026-11-24',
  how: 'PHONE',
  howWords: 'phone',
  warning: '',
  signed: false,
  estimateNumber: 1,
  enteredBy: 'Ines Carrow',
};

const view = {
  draft: sums,
  timeFactor: 1.1,
  numbers: [2, 1],
  left: [{ code: 'aux', name: 'Accessory belt', consent: { ...agreed, warning: 'may squeal' } }],
  open: 1,
  speakers: ['Tamsin Orde', 'Davy Orde'],
  newest: {
    number: 2,
    madeOn: '2026-11-25',
    validUntil: '2026-12-25',
    madeBy: 'Ines Carrow',
    current: true,
    lines: [asked('belt', 'Timing belt', agreed), asked('seals', 'Cam seals')],
    sums,
    plain: [],
  },
};

async function estimates(answers: Record<string, { status?: number; body: unknown }>) {
  const calls = serve({ ...manager, ...answers });
  show(<Estimates job={job} editable />, '/', true);
  await screen.findByText('€780.00');
  return calls;
}

it('makes the first estimate, then offers it on paper', async () => {
  const calls = await estimates({
    'GET /api/jobs/6/estimates': { body: { ...view, newest: undefined, numbers: [], left: [] } },
    'POST /api/jobs/6/estimates': { body: view },
  });
  expect(screen.getByText(/times 1.10 as we work/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Make the estimate' }));
  const paper = await screen.findByRole('link', { name: 'Print estimate 2' });
  expect(paper.getAttribute('href')).toBe('/api/jobs/6/estimates/2/estimate.pdf');
  expect(sent(calls)).toHaveLength(1);
});

it('asks first about the lines nobody was asked about, and keeps who said what', async () => {
  const calls = await estimates({
    'GET /api/jobs/6/estimates': { body: view },
    'POST /api/jobs/6/estimates/2/consents': { body: { ...view, open: 0 } },
  });
  expect(screen.getByText('1 to ask about')).toBeTruthy();
  expect(screen.getByText(/agreed; by Tamsin Orde, phone/)).toBeTruthy();
  expect(screen.getByText(/may squeal/)).toBeTruthy();
  expect(screen.getByLabelText('Answer for Cam seals')).toHaveProperty('checked', true);
  expect(screen.getByLabelText('Answer for Timing belt')).toHaveProperty('checked', false);
  fireEvent.click(screen.getByRole('button', { name: 'Agreed, 1 line' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(sent(calls)[0]!.body).toMatchObject({
    lines: ['seals'],
    answer: 'AGREED',
    saidBy: 'Tamsin Orde',
    how: 'PHONE',
    on: manager['GET /api/me'].body.today,
  });
});

it('says beside the field what a line that is left needs', async () => {
  await estimates({
    'GET /api/jobs/6/estimates': { body: view },
    'POST /api/jobs/6/estimates/2/consents': problem('/warning', 'Say what was told.'),
  });
  fireEvent.click(screen.getByRole('button', { name: 'Left' }));
  expect(await screen.findByText(/Say what was told/, { selector: '.field-note' })).toBeTruthy();
});

it('gives a job up only after it was asked, and notes an answer of somebody else where that is insisted on', async () => {
  const before = {
    ...view,
    newest: {
      ...view.newest,
      lines: [
        asked('belt', 'Timing belt'),
        asked('pump', 'Water pump', agreed, { ...agreed, answerWords: 'left' }),
      ],
    },
  };
  const calls = await estimates({
    'GET /api/jobs/6/estimates': { body: before },
    'POST /api/jobs/6/estimates/2/consents': insistable(
      '/saidBy',
      'Only these may speak for the owner: Tamsin Orde, Davy Orde.',
    ),
  });
  expect(screen.getByText(/left by Tamsin Orde/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Refused…' }));
  const give = await screen.findByRole('button', { name: 'Note it and give the job up' });
  expect(sent(calls)).toHaveLength(0);
  fireEvent.click(give);
  fireEvent.click(await screen.findByRole('button', { name: 'Note it all the same' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(2));
  expect(sent(calls)[0]!.body).toMatchObject({ answer: 'LEFT', refused: true, insist: false });
  expect(sent(calls)[1]!.body).toMatchObject({ answer: 'LEFT', refused: true, insist: true });
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { BundleTable } from './BundleTable';
import { Ladder } from './Ladder';

type Line = Schemas['JobView']['lines'][number];

const line = (code: string, name: string, more: Partial<Line>): Line => ({
  code,
  name,
  kind: 'ITEM',
  rule: 'OFFERED',
  included: false,
  onCard: true,
  reusable: false,
  ownerSupplied: false,
  minutes: 6,
  partsMinor: 2_000,
  nowMinor: 2_900,
  laterMinor: 9_000,
  savingMinor: 6_100,
  schools: ['EVERYTHING', 'WHAT_PAYS'],
  offers: [],
  reason: 'A reason.',
  ...more,
});

const job = {
  id: 6,
  version: 4,
  stage: 'DRAFT',
  minutes: 306,
  sharedMinutes: 240,
  build: {
    school: 'WHAT_PAYS',
    ownSchool: false,
    seals: 'WHEN_WET',
    ownSeals: false,
    purpose: [],
    drive: 'belt',
    variants: [],
    toolHireMinor: 0,
    schools: [
      { school: 'WHAT_PAYS', words: 'what pays', minutes: 306, nowMinor: 50_000, laterMinor: 700 },
    ],
  },
  lines: [
    line('belt', 'Timing belt', {
      rule: 'REQUIRED',
      included: true,
      minutes: 0,
      schools: ['EVERYTHING', 'WHAT_PAYS', 'BOOK_MINIMUM'],
    }),
    line('idler', 'Idler', {
      offers: [
        {
          number: 'I-1',
          name: 'Idler',
          grade: 'ORIGINAL',
          gradeWords: 'original',
          priceMinor: 2_000,
          per10000KmMinor: 210,
          expectedKm: 140_000,
          stock: 2,
          here: '2026-11-27',
          misfits: [],
        },
        {
          number: 'I-2',
          name: 'Idler',
          grade: 'PLAIN',
          gradeWords: 'plain',
          priceMinor: 900,
          stock: 0,
          here: '2026-12-01',
          misfits: ['width 20.0 mm, the book has 25.4 mm'],
        },
      ],
      part: 'I-1',
    }),
    line('pump', 'Water pump', { rule: 'REQUIRED', included: true, reusable: true }),
  ],
  steps: [
    {
      code: 'covers',
      title: 'Covers off',
      minutes: 240,
      helperMinutes: 0,
      neededBy: ['belt', 'pump'],
    },
    { code: 'pump', title: 'Pump off', minutes: 36, helperMinutes: 0, neededBy: ['pump'] },
  ],
} as unknown as Schemas['JobView'];

async function table(answer: { status?: number; body: unknown } = { body: job }) {
  const calls = serve({ ...manager, 'PUT /api/jobs/6/scope': answer });
  show(<BundleTable job={job} editable />, '/', true);
  await screen.findByText('Idler');
  return calls;
}

const row = (name: string) => screen.getByText(name).closest('tr')!;

it('shows what a line costs now, later and saves, and marks schools only where they differ', async () => {
  await table();
  expect(row('Idler')?.textContent).toContain('+€29.00€90.00€61.00');
  expect(within(row('Idler')).getAllByText('in')).toHaveLength(2);
  expect(within(row('Timing belt')).queryByText('in')).toBeNull();
  expect(screen.getByText('what pays')).toBeTruthy();
});

it('takes a free line in at a touch and keeps what was decided', async () => {
  const calls = await table();
  fireEvent.click(screen.getByLabelText('Idler in the job'));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(sent(calls)[0]!.body).toMatchObject({ decisions: { idler: { in: true } }, version: 4 });
});

it('overrules a rule only in words, and says what is missing', async () => {
  const calls = await table(problem('/decisions/pump/inspection', 'Reusing it needs a finding.'));
  fireEvent.click(screen.getByLabelText('Water pump in the job'));
  expect(sent(calls)).toHaveLength(0);
  fireEvent.change(screen.getByLabelText(/Leave it all the same/), {
    target: { value: 'new last year' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Reuse the old part' }));
  expect(await screen.findByText(/needs a finding/, { selector: '.field-note' })).toBeTruthy();
  expect(sent(calls)[0]!.body).toMatchObject({
    decisions: { pump: { in: false, reason: 'new last year', inspection: '' } },
  });
});

it('offers the grades with what their life costs, and the owner’s own part', async () => {
  const calls = await table();
  fireEvent.click(screen.getByRole('button', { name: 'Idler' }));
  expect(screen.getByText(/for each 10,000/)?.textContent).toContain('€2.10');
  expect(screen.getByText(/Does not fit/).textContent).toContain('20.0 mm');
  fireEvent.click(screen.getByLabelText(/I-2/));
  await waitFor(() => expect(sent(calls)[0]?.body).toMatchObject({ parts: { idler: 'I-2' } }));
  fireEvent.click(screen.getByLabelText(/owner brings/));
  await waitFor(() => expect(sent(calls)[1]?.body).toMatchObject({ ownerSupplied: ['idler'] }));
});

it('draws which minutes are shared and what each item adds', async () => {
  show(<Ladder job={job} currency="EUR" />);
  expect(screen.getByText('shared by all')).toBeTruthy();
  expect(screen.getByText('only water pump')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /Timing belt.*all shared/ }));
  expect(screen.getByText('Pump off').closest('li')?.className).toBe('dim');
  expect(screen.getByText('Covers off').closest('li')?.className).not.toBe('dim');
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import Board from './Board';
import { PlaceForm } from './PlaceForm';
import { PlanSheet } from './PlanSheet';
import { WhatIfSheet } from './WhatIfSheet';

const cost: Schemas['PlanCostView'] = {
  totalMinor: 400_000,
  exposureMinor: 20_000,
  unplannedMinor: 30_000,
  offRoadMinor: 130_000,
  changeoverMinor: 0,
  moveMinor: 0,
  unplannedJobs: 2,
  offRoadDays: 20,
  movedJobs: 0,
};

const days = Array.from({ length: 14 }, (_, i) => ({
  date: `2026-12-${String(i + 1).padStart(2, '0')}`,
  closed: i === 4 || i === 5,
  ferry: i === 0,
  ferryCancelled: false,
  freeMinutes: 600,
  helperMinutes: 0,
  full: i === 2 ? [{ fleet: 'Post and parcel', off: 2, cap: 2 }] : [],
}));

const block: Schemas['BlockView'] = {
  jobId: 7,
  version: 3,
  vehicleId: 70,
  registration: 'SKR 418 D',
  makeModel: 'Calder Dunlin 1.6',
  ownerName: 'Tamsin Orde',
  interference: 'YES',
  work: 'PROMISED',
  technicianId: 1,
  bayId: 2,
  toolSet: 'CAL-16',
  copy: 1,
  start: 8,
  end: 20,
  holds: [],
  minutes: 360,
  helperMinutes: 15,
  startsAt: '2026-12-01T13:00:00',
  endsAt: '2026-12-02T10:00:00',
  clash: [],
};

const waits: Schemas['WaitingView'] = {
  jobId: 8,
  version: 1,
  vehicleId: 80,
  registration: 'SKR 207 K',
  makeModel: 'Ostry Carrier 2.0',
  ownerName: 'Post and parcel',
  fleet: 'Post and parcel',
  interference: 'YES',
  status: 'OVERDUE',
  actBy: '2026-10-06',
  daysOver: 56,
  minutes: 240,
  exposurePerWeekMinor: 1_200,
  earliest: '2026-12-01T13:00:00',
  earliestWhy: 'part P-1 is ordered and comes with the ferry of that day',
  missed: false,
  noShows: 0,
};

const board: Schemas['BoardView'] = {
  from: '2026-12-01',
  today: '2026-12-01',
  last: '2027-02-22',
  times: Array.from({ length: 16 }, (_, k) => {
    const half = k < 8 ? 16 + k : 18 + k;
    return `${String(Math.floor(half / 2)).padStart(2, '0')}:${half % 2 ? '30' : '00'}:00`;
  }),
  now: 4,
  days,
  technicians: [
    { id: 1, name: 'Hedra Voss', skills: 'belt, chain', away: [] },
    { id: 2, name: 'Odo Brack', skills: 'belt', away: [{ from: 16, to: 32, why: 'course' }] },
  ],
  bays: [{ id: 2, name: 'Bay 2', note: 'two posts', closed: [] }],
  toolSets: [{ code: 'CAL-16', name: 'Calder 1.6', number: 1, copies: 1, out: [] }],
  blocks: [block],
  waiting: [waits],
  cost,
  undo: { what: 'placed SKR 418 D' },
  absences: [],
  fleets: [{ id: 5, name: 'Post and parcel', cap: 2, days: [], version: 1 }],
};

const job: Schemas['BoardJobView'] = {
  jobId: 7,
  version: 3,
  registration: 'SKR 418 D',
  place: {
    technicianId: 1,
    technician: 'Hedra Voss',
    bayId: 2,
    bay: 'Bay 2',
    start: '2026-12-01T13:00:00',
    end: '2026-12-02T10:00:00',
  },
  promised: true,
  days: [],
  noShows: [],
  whileHere: [{ vehicleId: 44, registration: 'SKR 044 A', occasion: 'same fleet' }],
  why: ['Waiting until 1 Dec 2026 may cost €0.00, 2 days off the road €130.00.'],
};

const served = (more: Record<string, { status?: number; body: unknown }> = {}) =>
  serve({
    ...manager,
    'GET /api/board': { body: board },
    'GET /api/board/plan': { body: {} },
    'GET /api/board/jobs/7': { body: job },
    ...more,
  });

describe('the board', () => {
  it('shows jobs on the tracks of technician, bay and tool set, the waiting one on the shelf, and says full days', async () => {
    served();
    show(<Board />, '/board', true);
    const words =
      /SKR 418 D interference engine promise 6.0 h, Calder Dunlin 1.6, from Tue 1 Dec 13:00 to Wed 2 Dec 10:00/;
    expect(await screen.findAllByRole('button', { name: words })).toHaveLength(3);
    expect(screen.getByText('Post 2 of 2')).toBeTruthy();
    const hanging = screen.getByRole('button', { name: /SKR 207 K .*56 days over, waits/ });
    expect(hanging.getAttribute('aria-label')).toContain('comes with the ferry');
    expect(screen.getByText('course')).toBeTruthy();
    expect(screen.getByLabelText('The board in words').textContent).toContain(
      'Tue 1 Dec, 13:00 to Wed 2 Dec, 10:00, Hedra Voss, Bay 2, promised, 6.0 h.',
    );
  });

  it('takes the last change back and moves on by two weeks', async () => {
    const calls = served({ 'POST /api/board/undo': { body: { more: false } } });
    show(<Board />, '/board', true);
    fireEvent.click(await screen.findByText('Take back: placed SKR 418 D'));
    await waitFor(() => expect(sent(calls).map((c) => c.path)).toEqual(['/api/board/undo']));
    const asked = calls.filter((c) => c.path === '/api/board').length;
    fireEvent.click(screen.getByText('later'));
    await waitFor(() =>
      expect(calls.filter((c) => c.path === '/api/board').length).toBeGreaterThan(asked),
    );
  });

  it('says of the chosen job where it stands, why, and takes its promise back', async () => {
    const calls = served({ 'PUT /api/board/jobs/7/promise': { body: job } });
    show(<Board />, '/board?job=7', true);
    expect((await screen.findByText(/over night/)).textContent).toContain(
      'A second pair of hands 15 min.',
    );
    expect((await screen.findByText('SKR 044 A')).closest('p')?.textContent).toContain(
      'worth doing on the same visit: SKR 044 A (same fleet).',
    );
    fireEvent.click(await screen.findByText('Why here?'));
    expect(await screen.findByText(/2 days off the road €130.00/)).toBeTruthy();
    fireEvent.click(await screen.findByText('Take the promise back'));
    await waitFor(() => expect(sent(calls)[0]?.body).toEqual({ promised: false, version: 3 }));
  });

  it('says that it cannot be read and offers to try again', async () => {
    served({ 'GET /api/board': { status: 500, body: { title: 'Broken', detail: 'Try again.' } } });
    show(<Board />, '/board', true);
    expect(await screen.findByText('Try again.')).toBeTruthy();
  });
});

describe('the place form', () => {
  it('says the broken rule and keeps its button shut', async () => {
    served({
      'GET /api/board/jobs/7/ask': {
        body: { broken: [{ rule: 'FLEET_CAP', words: 'Post and parcel: 2 of 2 off the road.' }] },
      },
    });
    show(<PlaceForm board={board} job={job} onDone={() => undefined} />, '/', true);
    expect(await screen.findByText('Post and parcel: 2 of 2 off the road.')).toBeTruthy();
    const button = screen.getByRole('button', { name: 'Move it, still promised' });
    expect((button as HTMLButtonElement).disabled).toBe(true);
  });

  it('moves a promised job and keeps it promised; a refusal stands beside its field', async () => {
    const calls = served({
      'GET /api/board/jobs/7/ask': { body: { place: job.place, broken: [] } },
      'PUT /api/board/jobs/7/place': problem('/day', 'Somebody was quicker.'),
    });
    show(<PlaceForm board={board} job={job} onDone={() => undefined} />, '/', true);
    expect(await screen.findByText(/Free: Tue 1 Dec, 13:00/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Move it, still promised' }));
    expect(await screen.findByText('Somebody was quicker.')).toBeTruthy();
    expect(sent(calls)[0]?.body).toMatchObject({ promised: true, version: 3, day: '2026-12-01' });
  });
});

const plan: Schemas['PlanView'] = {
  id: 4,
  by: 'Ines Carrow',
  began: '2026-12-01T10:00:00Z',
  phase: 'DONE',
  stopped: false,
  done: 1,
  steps: 9_000,
  before: cost,
  best: { ...cost, totalMinor: 300_000, unplannedJobs: 0 },
  changes: [
    { jobId: 8, registration: 'SKR 207 K', to: job.place, savesMinor: 27_000, needs: [] },
    { jobId: 9, registration: 'SKR 355 B', from: job.place, savesMinor: -100, needs: [] },
  ],
  boardChanged: true,
};

describe('a plan', () => {
  it('is compared change by change and accepted in part', async () => {
    const calls = served({ 'POST /api/board/plan/4/accept': { body: plan } });
    show(<PlanSheet plan={plan} onClose={() => undefined} onSelect={() => undefined} />, '/', true);
    expect(await screen.findByText('2 changes against the board as it stands')).toBeTruthy();
    expect(screen.getByText(/The board changed meanwhile/)).toBeTruthy();
    expect(screen.getByText(/€1,000.00 better in all/)).toBeTruthy();
    const row = screen.getByText('SKR 355 B').closest('tr')!;
    expect(row.textContent).toContain('waiting');
    fireEvent.click(within(row).getByRole('checkbox'));
    fireEvent.click(screen.getByText('Accept 1 of 2'));
    await waitFor(() => expect(sent(calls)[0]?.body).toEqual({ jobIds: [8] }));
  });

  it('ticks together what can only be made together', async () => {
    const chained = {
      ...plan,
      changes: [
        { jobId: 8, registration: 'SKR 207 K', to: job.place, savesMinor: 900, needs: [9] },
        { jobId: 9, registration: 'SKR 355 B', from: job.place, savesMinor: 0, needs: [10] },
        { jobId: 10, registration: 'SKR 902 L', from: job.place, savesMinor: 0, needs: [] },
      ],
    };
    const calls = served({ 'POST /api/board/plan/4/accept': { body: chained } });
    show(
      <PlanSheet plan={chained} onClose={() => undefined} onSelect={() => undefined} />,
      '/',
      true,
    );
    const tickOf = (registration: string) =>
      within(screen.getByText(registration).closest('tr')!).getByRole('checkbox');
    expect(await screen.findByText('only with SKR 355 B')).toBeTruthy();
    // without the last the two that need it go too
    fireEvent.click(tickOf('SKR 902 L'));
    expect(screen.getByText('Accept 0 of 3')).toBeTruthy();
    fireEvent.click(tickOf('SKR 355 B'));
    fireEvent.click(screen.getByText('Accept 2 of 3'));
    await waitFor(() => expect(sent(calls)[0]?.body).toEqual({ jobIds: [9, 10] }));
  });

  it('says that nothing better was found, and can be stopped while it runs', async () => {
    const calls = served({ 'POST /api/board/plan/4/stop': { body: plan } });
    const { unmount } = show(
      <PlanSheet
        plan={{ ...plan, changes: [], boardChanged: false }}
        onClose={() => undefined}
        onSelect={() => undefined}
      />,
      '/',
      true,
    );
    expect(await screen.findByText(/Nothing better was found/)).toBeTruthy();
    unmount();
    show(
      <PlanSheet
        plan={{ ...plan, phase: 'RUNNING', done: 0.25 }}
        onClose={() => undefined}
        onSelect={() => undefined}
      />,
      '/',
      true,
    );
    expect((await screen.findByText(/Working out a plan/)).textContent).toContain('25 %');
    fireEvent.click(screen.getByText('Stop, keep the best'));
    await waitFor(() => expect(sent(calls)[0]?.path).toBe('/api/board/plan/4/stop'));
  });
});

describe('what if', () => {
  it('shows what moves before anything changes, and enters it as seen', async () => {
    const calls = served({
      'POST /api/board/what-if': {
        body: {
          before: cost,
          after: cost,
          struck: [
            { jobId: 9, registration: 'SKR 355 B', words: ['No ferry.'], promiseBroken: true },
          ],
          changes: [{ ...plan.changes[1], tell: 'Keren Moll, 0555 1' }],
          onLift: [
            {
              jobId: 12,
              registration: 'SKR 441 D',
              technician: 'Hedra Voss',
              minutesLeft: 150,
              takers: [{ technicianId: 5, name: 'Odo Brack' }],
            },
            {
              jobId: 13,
              registration: 'SKR 442 D',
              technician: 'Hedra Voss',
              minutesLeft: 60,
              takers: [],
            },
          ],
        },
      },
      'POST /api/board/what-if/accept': { body: {} },
    });
    show(<WhatIfSheet board={board} onClose={() => undefined} />, '/', true);
    fireEvent.click(await screen.findByText('See what moves'));
    expect(await screen.findByText(/The promise cannot be kept: ring the owner/)).toBeTruthy();
    expect(screen.getByText('Nothing has changed yet.')).toBeTruthy();
    expect(screen.getByText('1 owner has to be told of another time.')).toBeTruthy();
    expect(screen.getByText('tell Keren Moll, 0555 1')).toBeTruthy();
    expect(screen.getByText(/Nobody else who knows the work is free/)).toBeTruthy();
    fireEvent.mouseDown(screen.getByLabelText(/2.5 h of its work left/));
    fireEvent.click(await screen.findByText('Odo Brack takes over'));
    fireEvent.click(screen.getByText('Enter it and move 1'));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    expect(sent(calls)[1]?.body).toMatchObject({
      jobIds: [9],
      absence: { kind: 'TECHNICIAN' },
      takeOver: [{ jobId: 12, technicianId: 5 }],
    });
    // another question takes the answer away
    fireEvent.change(screen.getByLabelText('From'), { target: { value: '2026-12-09' } });
    expect(screen.queryByText('Nothing has changed yet.')).toBeNull();
  });
});

describe('what can be done about a job', () => {
  it('promises an offer in one click and says whom it makes wait', async () => {
    const place = job.place!;
    const calls = served({
      'GET /api/board/jobs/7/offers': {
        body: [
          {
            place,
            waitingMinor: 200,
            offRoadMinor: 6_500,
            changeoverMinor: 0,
            restMinor: 1_200,
            totalMinor: 7_900,
            later: [
              { jobId: 8, registration: 'SKR 207 K', days: 1 },
              { jobId: 9, registration: 'SKR 355 B' },
              { jobId: 10, registration: 'SKR 902 L', days: 2 },
            ],
          },
        ],
      },
      'PUT /api/board/jobs/7/place': { body: job },
    });
    show(<Board />, '/board?job=7', true);
    fireEvent.click(await screen.findByText('Five best slots'));
    expect(
      await screen.findByText('SKR 207 K 1 day, SKR 355 B finds no place and 1 more'),
    ).toBeTruthy();
    fireEvent.click(screen.getByText('Promise Tue 1 Dec'));
    await waitFor(() =>
      expect(sent(calls)[0]?.body).toMatchObject({
        promised: true,
        day: '2026-12-01',
        time: '13:00',
        version: 3,
      }),
    );
  });

  it('keeps the days an owner can come', async () => {
    const calls = served({ 'PUT /api/board/jobs/7/wishes': { body: job } });
    show(<Board />, '/board?job=7', true);
    fireEvent.click(await screen.findByText('Possible days'));
    fireEvent.change(screen.getByLabelText('Not before'), { target: { value: '2026-12-08' } });
    fireEvent.click(screen.getByLabelText('Tue'));
    fireEvent.click(screen.getByText('Keep'));
    await waitFor(() =>
      expect(sent(calls)[0]?.body).toEqual({
        notBefore: '2026-12-08',
        days: ['TUESDAY'],
        version: 3,
      }),
    );
  });

  it('lets a vehicle that did not come be said so with a word', async () => {
    const late = { ...board, blocks: [{ ...block, work: 'LATE' as const }] };
    const calls = served({
      'GET /api/board': { body: late },
      'POST /api/board/jobs/7/no-show': problem('/note', 'Too long.'),
    });
    show(<Board />, '/board?job=7', true);
    fireEvent.click(await screen.findByText('Did not come'));
    fireEvent.change(screen.getByLabelText('What is known'), { target: { value: 'phone off' } });
    fireEvent.click(screen.getByText('It did not come'));
    expect(await screen.findByText('Too long.')).toBeTruthy();
    expect(sent(calls)[0]?.body).toEqual({ note: 'phone off', version: 3 });
  });
});

describe('the sheets of the board', () => {
  it('change a cap only where it was touched, and take an absence back', async () => {
    const away = {
      ...board,
      absences: [
        {
          id: 2,
          kind: 'TECHNICIAN' as const,
          what: 'Odo Brack is away',
          from: '2026-12-02',
          to: '2026-12-03',
          why: 'course',
          enteredBy: 'Ines Carrow',
        },
      ],
    };
    const calls = served({
      'GET /api/board': { body: away },
      'PUT /api/board/fleets/5': problem('/cap', 'Must be 0 to 999 vehicles.'),
      'DELETE /api/board/absences/2': { body: {} },
    });
    show(<Board />, '/board', true);
    fireEvent.click(await screen.findByText('Absences and caps'));
    expect(screen.queryByText('Keep')).toBeNull();
    fireEvent.change(screen.getByLabelText('Post and parcel: vehicles off the road on one day'), {
      target: { value: '3' },
    });
    fireEvent.click(await screen.findByText('Keep'));
    expect(await screen.findByText('Must be 0 to 999 vehicles.')).toBeTruthy();
    expect(sent(calls)[0]?.body).toEqual({ cap: 3, days: [], version: 1 });
    fireEvent.click(screen.getByText('Take it back'));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
  });

  it('show a private address once and revoke it', async () => {
    const feed = {
      id: 6,
      shows: 'the whole board',
      madeBy: 'Ines Carrow',
      madeAt: '2026-12-01T10:00:00Z',
    };
    served({
      'GET /api/board/feeds': { body: [] },
      'POST /api/board/feeds': { body: { path: '/api/feeds/secret', feeds: [feed] } },
      'DELETE /api/board/feeds/6': { body: [] },
    });
    show(<Board />, '/board', true);
    fireEvent.click(await screen.findByText('Calendar'));
    fireEvent.click(await screen.findByText('Make a private address'));
    expect((await screen.findByText(/\/api\/feeds\/secret/)).tagName).toBe('CODE');
    fireEvent.click(screen.getByText('Revoke'));
    await waitFor(() => expect(screen.queryByText('Revoke')).toBeNull());
  });
});

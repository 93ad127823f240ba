import { fireEvent, screen, waitFor } from '@testing-library/react';
import { openDB } from 'idb';
import { Route, Routes } from 'react-router';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { manager } from '../../test/fixtures';
import { sent, serve, show } from '../../test/render';
import type { Card, Step } from './cardQueries';
import JobCard from './JobCard';

const step = (code: string, part: Partial<Step> = {}): Step => ({
  code,
  title: code,
  task: 'TICK',
  notes: [],
  awaitsOwner: false,
  settled: false,
  mayDeviate: false,
  mayDefer: false,
  mayBeDoneNow: false,
  things: [],
  joints: [],
  repairs: false,
  results: [],
  takesSeveral: false,
  options: [],
  points: [],
  ...part,
});

const answered = (words: string, good = true) => ({
  words,
  good,
  by: 'Hedra Voss',
  at: '2026-11-25T09:00:00Z',
  deviation: false,
});

const wheel = (
  name: string,
  y: number,
  teeth: number,
): NonNullable<Card['path']>['pulleys'][number] => ({
  code: name,
  name,
  role: name === 'Crank' ? 'CRANK' : 'CAM',
  x: 0,
  y,
  teeth,
  radiusMm: teeth * 1.5,
  outside: false,
  marked: true,
});

function card(steps: Step[], part: Partial<Card> = {}): Card {
  return {
    jobId: 7,
    stage: 'UNDER_WAY',
    seq: 12,
    vehicleId: 3,
    registration: 'SKR 3',
    makeModel: 'Calder Dunlin 1.6',
    ownerName: 'Tamsin Orde',
    ownerPhone: '0555 1',
    family: 'Calder 1.6',
    interference: 'YES',
    items: ['Timing belt'],
    bookMinutes: 300,
    contingencyMinutes: 30,
    worked: {
      minutes: 90,
      byPerson: { 'Hedra Voss': 90 },
      present: ['Hedra Voss'],
      waits: [],
      uncounted: 0,
    },
    turnsUntilPaintReturns: 290,
    path: {
      teeth: 120,
      counted: 'teeth',
      clockwise: true,
      pulleys: [wheel('Crank', 0, 20), wheel('Cam', 200, 40)],
      runs: [],
    },
    loops: [],
    phases: [{ code: 'B4', title: 'Drain', done: false, steps }],
    gates: [],
    nextStep: steps.find((s) => !s.answer)?.code,
    started: true,
    attempt: 1,
    attempts: [],
    hardStop: false,
    outOfTime: false,
    outOfTimePlanned: false,
    mayOverride: true,
    technicians: ['Hedra Voss', 'Perran Loy'],
    findings: [],
    sideFindings: [],
    contingencies: [],
    photos: [],
    rechecks: [],
    offers: [],
    withoutALine: [],
    awaiting: [],
    mayGoBack: [],
    batches: [],
    corrections: [],
    cautions: [],
    inspection: false,
    parts: [],
    kits: [],
    tools: [],
    ...part,
  };
}

const AT = '/api/jobs/7/card';

function bench(now: Card, answers: Parameters<typeof serve>[0] = {}) {
  const calls = serve({ ...manager, [`GET ${AT}`]: { body: now }, ...answers });
  show(
    <Routes>
      <Route path="/jobs/:id/card" element={<JobCard />} />
    </Routes>,
    '/jobs/7/card',
    true,
  );
  return calls;
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const heading = (name: string) => screen.findByRole('heading', { level: 1, name });

describe('a card at the bench', () => {
  afterEach(async () => {
    localStorage.clear();
    await (await openDB('knollfield-bench')).clear('kept');
  });

  it('shows one step with the next in sight, hours of the book, and goes on when it is taken', async () => {
    const first = card([step('clear'), step('covers')]);
    const then = card(
      [step('clear', { answer: answered('done'), settled: true }), step('covers')],
      { seq: 13 },
    );
    const calls = bench(first, { [`POST ${AT}/events`]: { body: then } });
    await heading('clear');
    expect(screen.getByText('covers', { selector: 'footer b' })).toBeTruthy();
    expect(document.querySelector('.bench-progress')!.textContent).toBe('1.5 of 5.5 h book');
    press('Done');
    await heading('covers');
    expect(sent(calls)[0]!.body).toMatchObject({ type: 'TICK', step: 'clear', basedOn: 12 });
  });

  it('keeps an entry that cannot be sent and sends it once with the same key', async () => {
    const first = card([step('clear'), step('covers')]);
    const calls = bench(first);
    await heading('clear');
    press('Done');
    await heading('covers');
    expect(screen.getByRole('status').textContent).toContain('Kept on this tablet: 1 entry');
    const tried = sent(calls)[0]!.body as { clientKey: string };

    const after = card(
      [step('clear', { answer: answered('done'), settled: true }), step('covers')],
      { seq: 13 },
    );
    const again = serve({
      ...manager,
      [`GET ${AT}`]: { body: after },
      [`POST ${AT}/events`]: { body: after },
    });
    fireEvent(window, new Event('online'));
    await waitFor(() => expect(screen.queryByRole('status')).toBeNull());
    expect(sent(again)).toHaveLength(1);
    expect(sent(again)[0]!.body).toMatchObject({ clientKey: tried.clientKey });
  });

  it('says what the server did not take of what was kept', async () => {
    localStorage.setItem(
      'knollfield-bench-7',
      JSON.stringify([
        { key: 'k', basedOn: 1, at: '', entry: { type: 'MEASURE', step: 'drain', value: 99 } },
      ]),
    );
    const detail = 'A volume lies between 0.1 and 60 L.';
    bench(card([step('drain'), step('covers')]), {
      [`POST ${AT}/events`]: {
        status: 422,
        body: { type: '/problems/card-refused', title: 't', status: 422, detail, errors: [] },
      },
    });
    await heading('covers');
    fireEvent(window, new Event('online'));
    expect((await screen.findByRole('alert')).textContent).toContain(`Not taken (99): ${detail}`);
    press('Enter it anew');
    await heading('drain');
    press('Leave it');
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
    expect(localStorage.length).toBe(0);
  });

  it('tells both values where somebody else was first, and puts this one in place on demand', async () => {
    const open = step('drain', {
      task: 'MEASURE',
      measure: { kind: 'COOLANT_OUT', unit: 'L', low: 0.1, high: 60, usual: 5.5 },
    });
    const detail =
      'Perran Loy entered "5.2 L" at this step while you were at it. Yours, "5.5 L", was not saved.';
    const calls = bench(card([open, step('covers')]), {
      [`POST ${AT}/events`]: {
        status: 409,
        body: { type: '/problems/conflict', title: 't', status: 409, detail, errors: [] },
      },
    });
    await heading('drain');
    press('5.5 L, as the book has it');
    expect((await screen.findByRole('alert')).textContent).toContain(detail);
    press('Put mine in its place');
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    expect(sent(calls)[1]!.body).toMatchObject({ type: 'MEASURE', value: 5.5 });
  });

  it('offers what a finding asks for and waits for the owner with that step alone', async () => {
    const calls = bench(
      card([step('fit-camseal', { awaitsOwner: true }), step('covers')], {
        nextStep: 'covers',
        offers: [{ code: 'crankseal', name: 'Crank seal', minutes: 18, reason: 'Wet below.' }],
        awaiting: [{ code: 'camseal', name: 'Cam seals' }],
      }),
      {
        [`POST ${AT}/lines`]: { body: card([step('covers')]) },
        [`POST ${AT}/owner-answer`]: { body: { noted: true } },
      },
    );
    await heading('covers');
    expect(screen.getByText(/The owner has not answered/)).toBeTruthy();
    press('Their answer');
    press('They agree');
    await waitFor(() =>
      expect(sent(calls)[0]!.body).toMatchObject({
        lines: ['camseal'],
        agreed: true,
        saidBy: 'Tamsin Orde',
      }),
    );
    const add = await screen.findByRole('button', { name: 'Add to the job' });
    await waitFor(() => expect(add.hasAttribute('disabled')).toBe(false));
    fireEvent.click(add);
    await waitFor(() => expect(sent(calls)[1]!.body).toEqual({ items: ['crankseal'] }));
  });

  it('says what a job waits for and goes on', async () => {
    const calls = bench(
      card([step('clear')], { paused: { why: 'FERRY', whyWords: 'the delivery', words: 'bolt' } }),
      { [`POST ${AT}/events`]: { body: card([step('clear')]) } },
    );
    await heading('The job waits for the delivery');
    press('Go on with it');
    await heading('clear');
    expect(sent(calls)[0]!.body).toMatchObject({ type: 'RESUME' });
  });

  it('notes more work than planned in the currency of the workshop', async () => {
    const calls = bench(
      card([step('clear')], { sideFindings: [{ words: 'hose chafed', urgent: true }] }),
      { [`POST ${AT}/events`]: { body: card([step('clear')]) } },
    );
    await heading('clear');
    press('More');
    expect(screen.getByText('Urgent follow-up: hose chafed')).toBeTruthy();
    press(/^More work than planned/);
    fireEvent.change(screen.getByLabelText('What happened'), { target: { value: 'stud sheared' } });
    fireEvent.change(screen.getByLabelText('Minutes it adds'), { target: { value: '45' } });
    fireEvent.change(screen.getByLabelText(/^Part it takes/), { target: { value: 'stud' } });
    fireEvent.change(screen.getByLabelText(/^Price of the part/), { target: { value: '3.50' } });
    press('Add it to the job');
    await waitFor(() =>
      expect(sent(calls)[0]!.body).toMatchObject({
        type: 'CONTINGENCY',
        step: 'clear',
        words: 'stud sheared',
        minutes: 45,
        partMinor: 350,
      }),
    );
  });

  it('offers a line of its own for what the book has no part for', async () => {
    const first = card([step('clear')], { withoutALine: ['engine mount torn'] });
    const calls = bench(first, { [`POST ${AT}/events`]: { body: { ...first, withoutALine: [] } } });
    await heading('clear');
    press('A line for it');
    fireEvent.change(screen.getByLabelText('Minutes it adds'), { target: { value: '40' } });
    press('Add it to the job');
    await waitFor(() =>
      expect(sent(calls)[0]?.body).toMatchObject({
        type: 'CONTINGENCY',
        words: 'engine mount torn',
        minutes: 40,
      }),
    );
    await waitFor(() => expect(screen.queryByText('A line for it')).toBeNull());
  });

  it('says which joint broke, and takes it back where nothing did', async () => {
    const joints = [{ code: 'mount', name: 'Mount bolts' }];
    const stub = step('repair:mount', { task: 'CONFIRM', repairs: true });
    const calls = bench(card([step('off', { joints })]), {
      [`POST ${AT}/events`]: { body: card([stub]) },
    });
    await heading('off');
    press('More');
    press(/^More work than planned/);
    fireEvent.change(screen.getByLabelText('What happened'), { target: { value: 'stud broke' } });
    fireEvent.change(screen.getByLabelText('Minutes it adds'), { target: { value: '45' } });
    press('Mount bolts');
    expect(screen.getByText(/The card gets a step for the stub/)).toBeTruthy();
    press('Add it to the job');
    await heading('repair:mount');
    expect(sent(calls)[0]!.body).toMatchObject({ type: 'CONTINGENCY', joint: 'mount' });
    press('A mistake: nothing broke off');
    await waitFor(() =>
      expect(sent(calls)[1]!.body).toMatchObject({ type: 'UNDO', step: 'repair:mount' }),
    );
  });

  it('lets an old part go back with a reason', async () => {
    const calls = bench(
      card([step('off')], { mayGoBack: [{ code: 'pump', name: 'Water pump' }] }),
      {
        [`POST ${AT}/events`]: { body: card([step('on')]) },
      },
    );
    await heading('off');
    press('More');
    press(/^The old part goes back/);
    press('Water pump');
    const send = screen.getByRole('button', { name: 'The old one goes back' });
    expect((send as HTMLButtonElement).disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('What is wrong with the new one'), {
      target: { value: 'two studs too long' },
    });
    fireEvent.click(send);
    await heading('on');
    expect(sent(calls)[0]!.body).toMatchObject({
      type: 'GOES_BACK',
      item: 'pump',
      words: 'two studs too long',
    });
  });

  it('draws the loop a step is done to, and every loop where the whole engine turns', async () => {
    const path = card([]).path!;
    const loops = [
      { code: 'front', name: 'Front chain', path },
      { code: 'rear', name: 'Rear chain', path },
    ];
    const laid = step('lay', { things: ['rear'] });
    const names = () => [...document.querySelectorAll('figcaption')].map((f) => f.textContent);
    bench(card([laid, step('turn', { task: 'TURN', turn: 2 })], { loops }));
    await heading('lay');
    expect(names()).toEqual(['Rear chain']);
    press('Done');
    await heading('turn');
    expect(names()).toEqual(['Front chain', 'Rear chain']);
  });

  it('signs only when nothing waits to be sent', async () => {
    localStorage.setItem(
      'knollfield-bench-7',
      JSON.stringify([{ key: 'k', basedOn: 1, at: '', entry: { type: 'TICK', step: 'clear' } }]),
    );
    bench(
      card([step('clear', { answer: answered('done'), settled: true })], { nextStep: undefined }),
    );
    await heading('Entries wait to be sent');
    expect(screen.getByRole('button', { name: 'Sign the job' }).hasAttribute('disabled')).toBe(
      true,
    );
    vi.restoreAllMocks();
  });
});

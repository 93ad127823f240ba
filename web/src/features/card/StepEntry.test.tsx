import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { Problem } from '../../api/client';
import type { Entry, Step } from './cardQueries';
import { StepEntry } from './StepEntry';

const step = (part: Partial<Step>): Step => ({
  code: 's',
  title: 'Step',
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

const ui = (part: Partial<Step>, send: (e: Entry) => void, problem?: Problem) => (
  <QueryClientProvider client={new QueryClient()}>
    <StepEntry jobId={1} step={step(part)} busy={false} problem={problem} onSend={send} />
  </QueryClientProvider>
);

function entry(part: Partial<Step>, problem?: Problem) {
  const send = vi.fn();
  const view = render(ui(part, send, problem));
  return { send, view };
}

const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

describe('the entry of a step', () => {
  it('is one touch for a plain one', () => {
    const { send } = entry({ task: 'TICK' });
    press('Done');
    expect(send).toHaveBeenCalledWith({ type: 'TICK', step: 's' });
  });

  it('offers each result of an inspection', () => {
    const { send } = entry({
      task: 'INSPECT',
      results: [
        { words: 'good', bad: false },
        { words: 'worn', bad: true },
      ],
    });
    press('worn');
    expect(send).toHaveBeenCalledWith({ type: 'INSPECT', step: 's', result: 'worn' });
  });

  it('takes several results of one look, and the usual one alone', () => {
    const { send } = entry({
      task: 'INSPECT',
      takesSeveral: true,
      results: [
        { words: 'as expected', bad: false },
        { words: 'frayed edge', bad: false },
        { words: 'engine mount torn', bad: false },
      ],
    });
    press('frayed edge');
    expect(screen.getByRole('button', { name: 'as expected' }).hasAttribute('disabled')).toBe(true);
    press('engine mount torn');
    press('Enter these 2');
    press('frayed edge');
    press('engine mount torn');
    press('as expected');
    expect(send.mock.calls.map((c) => c[0])).toEqual([
      { type: 'INSPECT', step: 's', result: 'frayed edge', also: ['engine mount torn'] },
      { type: 'INSPECT', step: 's', result: 'as expected' },
    ]);
  });

  it('counts from none to all', () => {
    const { send } = entry({ task: 'COUNT', what: 'pins out', expected: 3 });
    expect(screen.getAllByRole('button')).toHaveLength(4);
    press('2');
    expect(send).toHaveBeenCalledWith({ type: 'COUNT', step: 's', count: 2 });
  });

  it('takes a turn, or a hard stop', () => {
    const { send } = entry({ task: 'TURN', turn: 2 });
    press('Turn 2 done, no stop');
    press('Hard stop');
    expect(send.mock.calls.map((c) => c[0].type)).toEqual(['TURN', 'HARD_STOP']);
  });

  it('takes marks as true unless touched', () => {
    const { send } = entry({
      task: 'MARKS',
      gate: 'REFERENCES_TRUE',
      points: ['crank', 'cam'],
      right: 'true',
      wrong: 'not true',
    });
    press('cam: true');
    press('crank: true');
    press('crank: not true');
    press('Record it, and set the timing again');
    expect(send).toHaveBeenCalledWith({ type: 'MARKS', step: 's', wrong: ['cam'] });
  });

  const joint: Partial<Step> = {
    task: 'TIGHTEN',
    what: 'Tensioner plate',
    bolts: 2,
    book: { nm: 6, lowNm: 5.7, highNm: 6.3, otherUnits: ['4.43 lb·ft'], origin: 'book' },
  };

  it('takes a torque in any unit from its own keys', () => {
    const { send } = entry(joint);
    expect(screen.getByText(/good from 5.7 to/)).toBeTruthy();
    press('5');
    press('3');
    press('decimal point');
    press('decimal point');
    press('5');
    press('Delete the last digit');
    press('lb·in');
    press('Enter 53. lb·in');
    expect(send).toHaveBeenCalledWith({
      type: 'TORQUE',
      step: 's',
      value: 53,
      unit: 'POUND_INCH',
      unitConfirmed: false,
      angleDegrees: undefined,
    });
  });

  it('sends the angle with the torque, or the torque alone', () => {
    const book = { ...joint.book!, angleDegrees: 90, angleWords: 'a quarter turn' };
    const { send } = entry({ ...joint, book });
    press('6');
    press('Enter 6 N·m and 90°');
    press('Torque only, not turned yet');
    expect(send.mock.calls.map((c) => c[0].angleDegrees)).toEqual([90, undefined]);
  });

  it('asks about the unit where the server does, and takes either answer', () => {
    const guard = new Problem(
      422,
      '/problems/unit-guard',
      't',
      '53 lb·ft is 71.86 N·m',
      [],
      'POUND_INCH',
      71.86,
    );
    const { send, view } = entry(joint);
    press('5');
    press('3');
    press('lb·ft');
    press('Enter 53 lb·ft');
    view.rerender(ui(joint, send, guard));
    press('No, lb·ft');
    press('Yes, lb·in');
    expect(send.mock.calls.map((c) => [c[0].unit, c[0].unitConfirmed])).toEqual([
      ['POUND_FOOT', false],
      ['POUND_FOOT', true],
      ['POUND_INCH', false],
    ]);
  });

  it('does not ask about what has been typed since', () => {
    const guard = new Problem(422, '/problems/unit-guard', 't', 'question', [], 'POUND_INCH');
    const { send, view } = entry(joint);
    press('5');
    press('Enter 5 N·m');
    view.rerender(ui(joint, send, guard));
    expect(screen.getByText('question')).toBeTruthy();
    press('9');
    expect(screen.queryByText('question')).toBeNull();
  });

  it('files a torque that is not on file, with where it stands', () => {
    const { send } = entry({ task: 'TIGHTEN', what: 'Pump' });
    expect(screen.getByText(/Not on file/)).toBeTruthy();
    press('9');
    expect(screen.getByRole('button', { name: /^File/ }).hasAttribute('disabled')).toBe(true);
    fireEvent.change(screen.getByLabelText('Where it stands'), { target: { value: 'sheet 4' } });
    press('File 9 N·m for this job');
    expect(send.mock.calls[0]![0]).toMatchObject({
      type: 'FILE_TORQUE',
      value: 9,
      words: 'sheet 4',
    });
  });

  it('asks for a reason only where a choice departs from the usual way', () => {
    const { send } = entry({
      task: 'CHOOSE',
      options: [
        { code: 'here', words: 'every piece is here', needsReason: false },
        { code: 'paint', words: 'own paint marks', needsReason: true },
      ],
    });
    press('own paint marks');
    expect(send).not.toHaveBeenCalled();
    fireEvent.change(screen.getByRole('textbox'), { target: { value: 'a pin is away' } });
    press('Take this way');
    press('every piece is here');
    expect(send.mock.calls.map((c) => [c[0].option, c[0].words])).toEqual([
      ['paint', 'a pin is away'],
      ['here', undefined],
    ]);
  });

  it('measures below zero where the window begins there', () => {
    const { send } = entry({
      task: 'MEASURE',
      measure: { kind: 'POINTER', unit: 'mm past centre', low: 0, high: 5 },
    });
    expect(screen.getByText(/Good from 0 to 5 mm past centre/)).toBeTruthy();
    press('2');
    press('below 0');
    press('Enter -2 mm past centre');
    expect(send).toHaveBeenCalledWith({ type: 'MEASURE', step: 's', value: -2 });
  });

  it('takes the usual volume in one touch', () => {
    const { send } = entry({
      task: 'MEASURE',
      measure: { kind: 'COOLANT_OUT', unit: 'L', low: 0.1, high: 60, usual: 5.5 },
    });
    press('5.5 L, as the book has it');
    expect(send).toHaveBeenCalledWith({ type: 'MEASURE', step: 's', value: 5.5 });
  });

  it('counts many in one touch and another number by key', () => {
    const { send } = entry({ task: 'COUNT', what: 'bolts back', expected: 9 });
    press('All 9');
    press('Another number');
    press('8');
    press('Enter 8');
    expect(send.mock.calls.map((c) => c[0].count)).toEqual([9, 8]);
  });

  it('adds up the teeth on the runs and wants every count', () => {
    const { send } = entry({
      task: 'RUNS',
      points: ['Crank to cam', 'Cam to crank'],
      expected: 120,
    });
    const type = (label: string, value: string) =>
      fireEvent.change(screen.getByLabelText(label), { target: { value } });
    type('Crank to cam, old', '30');
    type('Cam to crank, old', '30');
    type('Crank to cam, new', '30');
    type('Cam to crank, new', '31');
    expect(screen.getByRole('button').hasAttribute('disabled')).toBe(true);
    type('On the wheels, new', '60');
    expect(screen.getByText(/Together 121 of 120/)).toBeTruthy();
    press('Enter the counts');
    expect(send.mock.calls[0]![0]).toMatchObject({
      counts: [30, 31],
      oldCounts: [30, 30],
      count: 60,
    });
  });

  it('wants each span counted twice on both, and adds each count up', () => {
    const { send } = entry({
      task: 'MARK_TO_MARK',
      points: ['Crank to cam', 'Cam to crank'],
      expected: 120,
      what: 'teeth',
    });
    for (const column of ['old', 'old again', 'new', 'new again']) {
      expect(screen.getByRole('button').hasAttribute('disabled')).toBe(true);
      for (const [span, value] of [
        ['Crank to cam', '50'],
        ['Cam to crank', column === 'new again' ? '69' : '70'],
      ]) {
        fireEvent.change(screen.getByLabelText(`${span}, ${column}`), { target: { value } });
      }
    }
    const together = screen.getByText(/Together, of 120/).closest('tr')!.nextElementSibling!;
    expect([...together.querySelectorAll('td')].map((c) => c.textContent)).toEqual([
      '120',
      '120',
      '120',
      '119',
    ]);
    press('Enter the counts');
    expect(send.mock.calls[0]![0]).toMatchObject({
      type: 'MARK_TO_MARK',
      oldCounts: [50, 70],
      oldAgain: [50, 70],
      counts: [50, 70],
      again: [50, 69],
    });
  });

  it('goes over a pattern pass by pass', () => {
    const { send } = entry({
      task: 'PASSES',
      pattern: { bolts: 5, passes: 2, done: 1, order: [1, 3, 5, 2, 4] },
    });
    press('Pass 2 of 2 done');
    expect(send).toHaveBeenCalledWith({ type: 'PASS', step: 's' });
  });

  it('offers the branch for an engine found out of time', () => {
    const { send } = entry({
      code: 'marksin',
      gate: 'REFERENCE_FOUND',
      task: 'MARKS',
      points: ['crank', 'cam'],
      right: 'true',
      wrong: 'not true',
      answer: {
        words: 'not true: cam',
        good: false,
        by: 'Hedra',
        at: '2026-11-25T09:00:00Z',
        deviation: false,
      },
    });
    press('Found out of time: set it from scratch');
    expect(send).toHaveBeenCalledWith({ type: 'OUT_OF_TIME', words: 'not true: cam' });
  });

  it('sets the timing from scratch without a fault where head or cams were out', () => {
    const { send } = entry({
      task: 'MARKS',
      gate: 'REFERENCE_FOUND',
      points: ['crank', 'cam'],
      right: 'true',
      wrong: 'not true',
    });
    press('Head or cams were out: set it from scratch');
    expect(send).toHaveBeenCalledWith({
      type: 'OUT_OF_TIME',
      words: 'head or cams were out',
      planned: true,
    });
  });
});

import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { Problem } from '../../api/client';
import type { Step } from './cardQueries';
import { StepEntry } from './StepEntry';

const step = (part: Partial<Step>): Step => ({ code: 's', title: 'Step', task: 'TICK', ...part });

function entry(part: Partial<Step>, guard?: Problem) {
  const send = vi.fn();
  const view = render(<StepEntry step={step(part)} busy={false} guard={guard} onSend={send} />);
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
    const { send } = entry({ task: 'INSPECT', results: ['good', 'worn'] });
    press('worn');
    expect(send).toHaveBeenCalledWith({ type: 'INSPECT', step: 's', result: 'worn' });
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
    const { send } = entry({ task: 'MARKS', references: ['crank', 'cam'] });
    press('cam: true');
    press('crank: true');
    press('crank: not true');
    press(/Record it/);
    expect(send).toHaveBeenCalledWith({ type: 'MARKS', step: 's', notTrue: ['cam'] });
  });

  const joint: Partial<Step> = {
    task: 'TIGHTEN',
    what: 'Tensioner plate',
    bolts: 2,
    bookNm: 6,
    lowNm: 5.7,
    highNm: 6.3,
    origin: 'book',
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

  it('sends the angle only when it has been turned', () => {
    const { send } = entry({ ...joint, angleDegrees: 90 });
    press('6');
    press('Enter 6 N·m');
    press('Then 90° further: not yet');
    press('Enter 6 N·m');
    expect(send.mock.calls.map((c) => c[0].angleDegrees)).toEqual([undefined, 90]);
  });

  it('asks about the unit where the server does, and takes either answer', () => {
    const guard = new Problem(
      422,
      '/problems/unit-guard',
      't',
      '53 lb·ft is 71.86 N·m',
      [],
      'POUND_INCH',
    );
    const { send, view } = entry(joint);
    press('5');
    press('3');
    press('lb·ft');
    press('Enter 53 lb·ft');
    view.rerender(<StepEntry step={step(joint)} busy={false} guard={guard} onSend={send} />);
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
    view.rerender(<StepEntry step={step(joint)} busy={false} guard={guard} onSend={send} />);
    expect(screen.getByText('question')).toBeTruthy();
    press('9');
    expect(screen.queryByText('question')).toBeNull();
  });

  it('says that a torque is not on file', () => {
    entry({ task: 'TIGHTEN', what: 'Pump' });
    expect(screen.getByText(/Not on file/)).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });
});

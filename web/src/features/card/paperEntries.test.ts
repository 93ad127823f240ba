import { describe, expect, it } from 'vitest';
import type { Step } from './cardQueries';
import { entriesOf, type Written } from './paperEntries';

const of = (part: Partial<Step>, written?: Written) =>
  entriesOf({ code: 's', results: [], options: [], points: [], ...part } as Step, written);

describe('what was written on paper', () => {
  it('is nothing where nothing was written, whatever the step asks', () => {
    const tasks: Step['task'][] = [
      'TICK',
      'CONFIRM',
      'INSPECT',
      'CHOOSE',
      'COUNT',
      'CHECK',
      'MEASURE',
      'RUNS',
      'MARK_TO_MARK',
      'PASSES',
      'TIGHTEN',
      'TURN',
      'MARKS',
    ];
    expect(tasks.map((task) => of({ task }))).toEqual(tasks.map(() => []));
  });

  it('is one entry for each pass that is left', () => {
    const pattern = { bolts: 8, passes: 3, done: 1, order: [] };
    expect(of({ task: 'PASSES', pattern }, { ticked: true })).toHaveLength(2);
  });

  it('takes a figure with a comma, and tells one that cannot be read from none', () => {
    expect(of({ task: 'MEASURE' }, { figure: '5,5' })).toEqual([
      { type: 'MEASURE', step: 's', value: 5.5 },
    ]);
    expect(of({ task: 'MEASURE' }, { figure: 'five' })).toBeUndefined();
    expect(of({ task: 'TIGHTEN' }, { figure: '130', angle: '90' })).toEqual([
      { type: 'TORQUE', step: 's', value: 130, unit: 'NEWTON_METRE', angleDegrees: 90 },
    ]);
    expect(of({ task: 'TIGHTEN' }, { figure: '130', angle: 'a quarter' })).toBeUndefined();
  });

  it('takes several results, points that do not hold, and teeth run by run', () => {
    expect(of({ task: 'INSPECT' }, { choice: ['a', 'b'] })).toEqual([
      { type: 'INSPECT', step: 's', result: 'a', also: ['b'] },
    ]);
    expect(of({ task: 'MARKS' }, { ticked: true, wrong: ['cam'] })).toEqual([
      { type: 'MARKS', step: 's', wrong: ['cam'] },
    ]);
    expect(of({ task: 'RUNS' }, { old: '20, 31', figure: '20 31', onWheels: '60' })).toEqual([
      { type: 'RUNS', step: 's', counts: [20, 31], oldCounts: [20, 31], count: 60 },
    ]);
    const marks = { old: '20 31', oldAgain: '20 31', figure: '20 31', again: '20 32' };
    expect(of({ task: 'MARK_TO_MARK' }, marks)).toEqual([
      {
        type: 'MARK_TO_MARK',
        step: 's',
        oldCounts: [20, 31],
        oldAgain: [20, 31],
        counts: [20, 31],
        again: [20, 32],
      },
    ]);
    expect(of({ task: 'MARK_TO_MARK' }, { ...marks, again: '' })).toBeUndefined();
    expect(of({ task: 'RUNS' }, { old: '20, x', figure: '20 31', onWheels: '60' })).toBeUndefined();
  });
});

import { cleanup, render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { TurningPath } from './TurningPath';
import type { WindowView } from './dueWindow';
import { crossingWords, DueWindowPicture } from './DueWindowPicture';
import { LifeStrip } from './LifeStrip';
import { InterferenceMark, StatusSwatch } from './marks';

const window: WindowView = {
  item: 'Timing belt',
  start: '2022-05-25',
  startKm: 40_000,
  known: true,
  severe: false,
  limit: { km: 120_000, months: 72 },
  spanMonths: 90,
  spanKm: 150_000,
  track: [
    { date: '2022-05-25', months: 0, km: 0, odometerKm: 40_000 },
    { date: '2026-11-25', months: 54, km: 98_000, odometerKm: 138_000 },
  ],
  rejected: [
    {
      point: { date: '2024-01-01', months: 20, km: 10_000, odometerKm: 50_000 },
      reason: 'runs backwards',
    },
  ],
  fan: [],
  today: { date: '2026-11-25', months: 54, km: 98_000, odometerKm: 138_000 },
};

describe('crossing in words', () => {
  it.each([
    [undefined, 'No limit is reached within 60 years'],
    [{ wall: 'AGE', median: '2028-05-25', corner: false }, 'Age decides: 25 May 2028'],
    [
      {
        wall: 'DISTANCE',
        from: '2027-10-01',
        median: '2027-12-31',
        to: '2028-04-01',
        corner: false,
      },
      'Distance decides: Oct 2027 to Apr 2028',
    ],
    [
      { wall: 'DISTANCE', from: '2027-10-01', median: '2027-12-31', corner: false },
      'Distance decides: from 1 Oct 2027',
    ],
    [
      {
        wall: 'DISTANCE',
        from: '2027-01-01',
        median: '2027-02-28',
        to: '2027-05-25',
        corner: true,
      },
      'Distance or age: Jan to May 2027',
    ],
  ] as const)('%o reads %s', (crossing, words) => {
    expect(
      crossingWords({ ...window, crossing: crossing as WindowView['crossing'] }).join(' '),
    ).toBe(words);
  });
});

describe('pictures', () => {
  it('of a due window have a twin in words and name what was rejected', () => {
    render(<DueWindowPicture window={window} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toContain(
      'Due window of the timing belt',
    );
    expect(screen.getByText('runs backwards')).toBeTruthy();
    expect(screen.getByText('months since the timing belt was renewed, 25 May 2022')).toBeTruthy();
  });

  it('say that a renewal is not known', () => {
    render(<DueWindowPicture window={{ ...window, known: false }} />);
    expect(screen.getByText(/renewal not known; drawn from first registration/)).toBeTruthy();
  });

  it('of a life end at the limit and hatch what lies beyond', () => {
    const { container } = render(
      <LifeStrip
        life={{ distance: 1.1, distanceSoon: 1.15, age: 0.5, ageSoon: 0.6, binding: 'DISTANCE' }}
      />,
    );
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      '110 % of the distance, 50 % of the age',
    );
    expect(container.querySelectorAll('.life-over')).toHaveLength(1);
    expect(container.querySelectorAll('.life.binding')).toHaveLength(1);
  });

  it('of a life nobody knows are dots and a question mark', () => {
    const { container } = render(<LifeStrip life={{ binding: 'NONE' }} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('No clock can be counted');
    expect(container.querySelector('.life-unknown')).toBeTruthy();
    expect(screen.getByText('?')).toBeTruthy();
  });

  it.each([
    ['YES', 'interference engine'],
    ['NO', 'not an interference engine'],
    ['UNKNOWN', 'interference unconfirmed'],
  ] as const)('of interference %s say %s', (value, words) => {
    render(<InterferenceMark value={value} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(words);
  });

  it('of standings differ in more than colour', () => {
    const shapes = (
      ['STOP', 'OVERDUE', 'ACT_NOW', 'COMING', 'CLEAR', 'UNKNOWN_HISTORY', 'NO_BOOK'] as const
    ).map((status) => {
      const { container } = render(<StatusSwatch status={status} />);
      const html = container.querySelector('svg')!;
      cleanup();
      return `${html.getAttribute('class')} ${html.querySelector('pattern')?.innerHTML ?? 'none'}`;
    });
    expect(new Set(shapes).size).toBe(shapes.length);
  });

  it('of a belt say which marks stand at their pointers', () => {
    const path: Schemas['PathView'] = {
      teeth: 120,
      counted: 'links',
      clockwise: true,
      pulleys: [
        {
          code: 'c',
          name: 'Crank',
          role: 'CRANK',
          x: 0,
          y: 0,
          teeth: 20,
          radiusMm: 30,
          outside: false,
          marked: true,
        },
        {
          code: 'i',
          name: 'Cam',
          role: 'CAM',
          x: 0,
          y: 200,
          teeth: 40,
          radiusMm: 60,
          outside: false,
          marked: true,
        },
      ],
      runs: [
        { from: 'c', to: 'i', pull: 'SLACK' },
        { from: 'i', to: 'c', pull: 'TIGHT' },
      ],
    };
    const { rerender } = render(<TurningPath path={path} teeth={20} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'The loop runs clockwise. Not at their pointers: cam.',
    );
    expect(screen.getByText('opposite')).toBeTruthy();
    rerender(<TurningPath path={path} teeth={40} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'The loop runs clockwise. All marks are at their pointers.',
    );
  });
});

import { numberOf } from '../../shared/ui/spelling';
import type { Entry, Step } from './cardQueries';

/** What was written beside a step: a tick, a choice, points that do not hold, or figures as text. */
export interface Written {
  ticked?: boolean;
  choice?: string[];
  reason?: string;
  wrong?: string[];
  figure?: string;
  angle?: string;
  old?: string;
  onWheels?: string;
  oldAgain?: string;
  again?: string;
}

const figure = (text: string) => {
  const value = numberOf(text, 3);
  return Number.isNaN(value) ? undefined : value;
};
const whole = (text = '') => (/^\d+$/.test(text.trim()) ? Number(text) : undefined);
const list = (text = '') =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(whole);

/** The entries that what was written on paper stands for: none where nothing was, undefined where it cannot be read. */
export function entriesOf(step: Step, written: Written = {}): Entry[] | undefined {
  const at = { step: step.code };
  switch (step.task) {
    case 'TICK':
    case 'CONFIRM':
      return written.ticked ? [{ type: 'TICK', ...at }] : [];
    case 'TURN':
      return written.ticked ? [{ type: 'TURN', ...at }] : [];
    case 'PASSES':
      return written.ticked
        ? Array.from({ length: (step.pattern?.passes ?? 1) - (step.pattern?.done ?? 0) }, () => ({
            type: 'PASS' as const,
            ...at,
          }))
        : [];
    case 'INSPECT': {
      const [result, ...also] = written.choice ?? [];
      return result ? [{ type: 'INSPECT', ...at, result, ...(also.length ? { also } : {}) }] : [];
    }
    case 'CHOOSE':
      return written.choice?.[0]
        ? [{ type: 'CHOOSE', ...at, option: written.choice[0], words: written.reason ?? '' }]
        : [];
    case 'CHECK':
      return written.ticked ? [{ type: 'CHECK', ...at, wrong: written.wrong ?? [] }] : [];
    case 'MARKS':
      return written.ticked ? [{ type: 'MARKS', ...at, wrong: written.wrong ?? [] }] : [];
    case 'COUNT': {
      if (!written.figure?.trim()) return [];
      const count = whole(written.figure);
      return count === undefined ? undefined : [{ type: 'COUNT', ...at, count }];
    }
    case 'MEASURE': {
      if (!written.figure?.trim()) return [];
      const value = figure(written.figure);
      return value === undefined ? undefined : [{ type: 'MEASURE', ...at, value }];
    }
    case 'TIGHTEN': {
      if (!written.figure?.trim()) return [];
      const value = figure(written.figure);
      const angleDegrees = whole(written.angle);
      if (value === undefined || (written.angle?.trim() && angleDegrees === undefined)) {
        return undefined;
      }
      return [{ type: 'TORQUE', ...at, value, unit: 'NEWTON_METRE', angleDegrees }];
    }
    case 'MARK_TO_MARK': {
      const typed = [written.old, written.oldAgain, written.figure, written.again];
      if (typed.every((t) => !t?.trim())) return [];
      const counts = typed.map(list);
      if (counts.some((c) => !c.length || c.some((n) => n === undefined))) return undefined;
      const [oldCounts, oldAgain, now, again] = counts as number[][];
      return [{ type: 'MARK_TO_MARK', ...at, oldCounts, oldAgain, counts: now, again }];
    }
    case 'RUNS': {
      if (!written.figure?.trim() && !written.old?.trim()) return [];
      const old = list(written.old);
      const now = list(written.figure);
      const onWheels = whole(written.onWheels);
      const read = [...old, ...now, onWheels].every((n) => n !== undefined);
      return read
        ? [
            {
              type: 'RUNS',
              ...at,
              counts: now as number[],
              oldCounts: old as number[],
              count: onWheels,
            },
          ]
        : undefined;
    }
  }
}

import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { turned } from './turning';

const wheel = (
  code: string,
  teeth: number,
  part: Partial<Schemas['PulleyView']> = {},
): Schemas['PulleyView'] => ({
  code,
  name: code,
  role: code === 'crank' ? 'CRANK' : 'CAM',
  x: 0,
  y: 0,
  teeth,
  radiusMm: 30,
  outside: false,
  marked: true,
  ...part,
});

const path = (clockwise: boolean): Schemas['PathView'] => ({
  teeth: 145,
  counted: 'teeth',
  clockwise,
  pulleys: [
    wheel('crank', 24),
    wheel('cam', 48),
    wheel('back', 24, { outside: true, marked: false }),
  ],
  runs: [],
});

describe('wheels that are turned on', () => {
  it('are true at the start and together again after two crank turns, not after one', () => {
    expect(turned(path(true), 0).map((w) => w.isTrue)).toEqual([true, true, undefined]);
    const once = turned(path(true), 24);
    expect(once[0]!.isTrue).toBe(true);
    expect(once[1]!.isTrue).toBe(false);
    expect(once[1]!.opposite).toBe(true);
    expect(turned(path(true), 48).map((w) => w.isTrue)).toEqual([true, true, undefined]);
  });

  it('turn with the loop inside it and against it outside', () => {
    const [crank, cam, back] = turned(path(true), 6);
    expect(crank!.degrees).toBeCloseTo(90);
    expect(cam!.degrees).toBeCloseTo(45);
    expect(back!.degrees).toBeCloseTo(270);
    expect(turned(path(false), 6)[0]!.degrees).toBeCloseTo(270);
  });

  it('stand beside their mark where one is out', () => {
    const [, cam] = turned(path(true), 48, { wheel: 'cam', degrees: -7.5 });
    expect(cam!.isTrue).toBe(false);
    expect(cam!.degrees).toBeCloseTo(352.5);
  });
});

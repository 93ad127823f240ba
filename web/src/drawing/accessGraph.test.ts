import { expect, it } from 'vitest';
import { layOut, type GraphStep } from './accessGraph';

const step = (code: string, ...requires: string[]): GraphStep => ({
  code,
  title: code,
  minutes: 1,
  requires,
  equipment: null,
});

it('sets a step one layer after the deepest it comes after', () => {
  const placed = layOut([
    step('belt', 'covers'),
    step('covers', 'mount', 'pulley'),
    step('mount', 'shields'),
    step('pulley', 'shields'),
    step('shields'),
    step('drain'),
  ]);
  expect(Object.fromEntries(placed.map((p) => [p.step.code, p.layer]))).toEqual({
    shields: 0,
    drain: 0,
    mount: 1,
    pulley: 1,
    covers: 2,
    belt: 3,
  });
  const places = placed.map((p) => `${p.layer}.${p.row}`);
  expect(new Set(places).size).toBe(places.length);
});

it('stands a step that is not there yet, and a circle while it is being written', () => {
  expect(layOut([step('a', 'nowhere')])[0]!.layer).toBe(0);
  expect(layOut([step('a', 'b'), step('b', 'a')])).toHaveLength(2);
});

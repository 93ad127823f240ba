import { expect, it } from 'vitest';
import { blank, codesOf, filled, put, type JsonSchema } from './schemaForm';

const part: JsonSchema = {
  type: 'object',
  properties: {
    name: { type: 'string' },
    count: { type: 'integer', minimum: 1 },
    face: { type: 'string', enum: ['DRY', 'WET'] },
    angle: { type: ['integer', 'null'] },
    marks: { type: 'array', items: { type: 'string' }, minItems: 2 },
    on: { type: 'boolean' },
  },
};

it('begins with values that are as good as unknown ones can be', () => {
  expect(blank(part)).toEqual({
    name: '',
    count: 1,
    face: 'DRY',
    angle: null,
    marks: ['', ''],
    on: false,
  });
  expect(blank({ ...part, type: ['object', 'null'] })).toBeNull();
  expect(filled({ ...part, type: ['object', 'null'] })).toMatchObject({ count: 1 });
});

it('puts a value deep into a document without touching the old one', () => {
  const before = {
    items: [
      { name: 'a', part: { price: 2 } },
      { name: 'b', part: { price: 1 } },
    ],
    other: { x: 1 },
  };
  const after = put(before, ['items', 1, 'part', 'price'], 5) as typeof before;
  expect(after.items[1]).toEqual({ name: 'b', part: { price: 5 } });
  expect(before.items[1]!.part.price).toBe(1);
  expect(after.other).toBe(before.other);
  expect(put(before, ['items', 0, 'note'], 'n')).toMatchObject({
    items: [{ note: 'n' }, { name: 'b' }],
  });
});

it('offers the codes of a list, wheels of the path included', () => {
  const family = {
    items: [{ code: 'belt', name: 'Timing belt' }],
    accessSteps: [{ code: 'covers', title: 'Covers off' }],
    path: { pulleys: [{ code: 'crank', name: 'Crank' }] },
  };
  expect(codesOf(family, 'items')).toEqual([{ value: 'belt', label: 'Timing belt' }]);
  expect(codesOf(family, 'accessSteps')).toEqual([{ value: 'covers', label: 'Covers off' }]);
  expect(codesOf(family, 'pulleys')).toEqual([{ value: 'crank', label: 'Crank' }]);
  expect(codesOf(family, 'joints')).toEqual([]);
});

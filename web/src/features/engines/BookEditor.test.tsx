import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { BookEditor } from './BookEditor';

const text = { type: 'string', title: 'Name', maxLength: 80 };
const schema = {
  properties: {
    family: {
      type: 'object',
      properties: {
        name: text,
        drive: {
          type: 'string',
          title: 'Drive',
          enum: ['BELT', 'CHAIN'],
          'x-words': ['belt', 'chain'],
        },
        path: {
          type: 'object',
          title: 'Path',
          properties: { teeth: { type: 'integer', title: 'Teeth' } },
        },
        pins: { type: 'array', title: 'Pins', items: { ...text, title: 'Pin' }, 'x-one': 'pin' },
        items: {
          type: 'array',
          title: 'Items',
          'x-one': 'item',
          items: {
            type: 'object',
            properties: {
              code: { type: 'string', title: 'Code' },
              name: text,
              weight: { type: ['integer', 'null'], title: 'Weight', 'x-unit': 'g' },
              price: { type: 'integer', title: 'Price', 'x-unit': 'minor units' },
            },
          },
        },
        accessSteps: { type: 'array', title: 'Steps', items: { type: 'object', properties: {} } },
        joints: { type: 'array', title: 'Joints', items: { type: 'object', properties: {} } },
        variants: { type: 'array', title: 'Variants', items: { type: 'object', properties: {} } },
        kits: { type: 'array', title: 'Kits', items: { type: 'object', properties: {} } },
      },
    },
  },
};

const view = {
  code: 'T-1',
  name: 'Test',
  version: 3,
  newest: 3,
  family: {
    name: 'Test',
    drive: 'BELT',
    pins: ['crank pin'],
    items: [{ code: 'belt', name: 'Timing belt', weight: null }],
    path: {
      teeth: 60,
      pulleys: [
        { code: 'crank', x: 0, y: 0 },
        { code: 'cam', x: 0, y: 200 },
      ],
    },
  },
} as unknown as Schemas['FamilyView'];

const wheel = (code: string, role: string, y: number, teeth: number) => ({
  code,
  name: code,
  role,
  x: 0,
  y,
  teeth,
  radiusMm: 2 * teeth,
  outside: false,
  marked: true,
});

const loop = {
  teeth: 60,
  counted: 'teeth',
  clockwise: true,
  pulleys: [wheel('crank', 'CRANK', 0, 10), wheel('cam', 'CAM', 200, 20)],
  runs: [
    { from: 'crank', to: 'cam', tight: false },
    { from: 'cam', to: 'crank', tight: true },
  ],
  layingOn: ['crank', 'cam'],
  marksReturnTurns: 6,
  marks: 2,
  fit: {
    lengthMm: 500,
    pitchMm: 9.525,
    teethNeeded: 52.5,
    wrong: ['The loop does not touch Cam where it stands.'],
  },
};

function editor(answer: { status?: number; body: unknown } = { body: view }) {
  const calls = serve({
    ...manager,
    'GET /api/engines/schema': { body: schema },
    'PUT /api/engines/T-1': answer,
    'POST /api/engines/check': { body: loop },
  });
  const done = vi.fn();
  show(<BookEditor view={view} onClose={done} />, '/', true);
  return { calls, done };
}

// the editor shows the fields that a schema has; this one is smaller than the real one
const engine = () => screen.findByLabelText('Name');

it('files the whole book as its next version, with the reason', async () => {
  const { calls, done } = editor();
  const name = await engine();
  expect(screen.getByRole('button', { name: 'File version 4' })).toHaveProperty('disabled', true);
  fireEvent.change(name, { target: { value: '' } });
  fireEvent.change(name, { target: { value: 'Tested' } });
  fireEvent.click(screen.getByText('add a pin'));
  fireEvent.change(screen.getAllByLabelText('Pin')[1]!, { target: { value: 'cam bar' } });
  fireEvent.change(screen.getByLabelText('Why it is changed'), {
    target: { value: 'seen on the vehicle' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'File version 4' }));
  await waitFor(() => expect(done).toHaveBeenCalled());
  expect(sent(calls)[0]!.body).toEqual({
    family: { ...view.family, name: 'Tested', pins: ['crank pin', 'cam bar'] },
    version: 3,
    note: 'seen on the vehicle',
  });
});

it('adds, fills and takes out things of a list', async () => {
  const { calls } = editor();
  await engine();
  fireEvent.click(screen.getByRole('button', { name: 'Items' }));
  fireEvent.click(screen.getByText('add a item'));
  const body = document.querySelector<HTMLElement>('.thing-body')!;
  fireEvent.change(within(body).getByLabelText('Name'), { target: { value: 'Idler' } });
  fireEvent.change(within(body).getByLabelText(/Weight/), { target: { value: '120' } });
  fireEvent.change(within(body).getByLabelText('Price'), { target: { value: '12,50' } });
  fireEvent.click(screen.getByRole('button', { name: /Timing belt/ }));
  fireEvent.click(screen.getByText('take Timing belt out'));
  fireEvent.click(screen.getByRole('button', { name: 'File version 4' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect((sent(calls)[0]!.body as { family: { items: unknown } }).family.items).toEqual([
    { code: '', name: 'Idler', weight: 120, price: 1_250 },
  ]);
});

it('says at the field and in its part what the server does not take', async () => {
  editor(problem('/family/items/0/name', 'Too short.'));
  fireEvent.change(await engine(), { target: { value: '!' } });
  fireEvent.click(screen.getByRole('button', { name: 'File version 4' }));
  expect(await screen.findByText('/items/0/name')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /Items.*1 wrong/ }));
  expect(document.querySelector('.thing-body .field-note')?.textContent).toContain('Too short.');
});

it('draws the path as it stands, moves a wheel by keys, and says what it comes to; files nothing', async () => {
  const { calls, done } = editor();
  await engine();
  fireEvent.click(screen.getByRole('button', { name: 'Path' }));
  fireEvent.click(screen.getByRole('button', { name: 'Draw it as it stands here' }));
  const picture = await screen.findByRole('group', { name: /Slack from crank to cam/ });
  expect(picture.querySelectorAll('.tight')).toHaveLength(1);
  expect(screen.getByText(/back after 6 crank turns/)).toBeTruthy();
  expect(screen.getByText('The loop does not touch Cam where it stands.')).toBeTruthy();
  expect(sent(calls).map((c) => c.path)).toEqual(['/api/engines/check']);

  fireEvent.keyDown(within(picture).getByRole('button', { name: /^cam at/ }), {
    key: 'ArrowRight',
    shiftKey: true,
  });
  await waitFor(() => expect(sent(calls)).toHaveLength(2));
  const { pulleys } = (
    sent(calls)[1]!.body as { family: { path: { pulleys: { code: string; x: number }[] } } }
  ).family.path;
  const before = loop.pulleys.find((p) => p.code === 'cam')!;
  expect(pulleys.find((p) => p.code === 'cam')).toMatchObject({ x: before.x + 10, y: before.y });
  expect(done).not.toHaveBeenCalled();
});

import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import ImportList from './ImportList';

type Preview = Schemas['Preview'];

const field = (name: Preview['fields'][number]['field'], words: string, needed = false) => ({
  field: name,
  words,
  needed,
});

const preview: Preview = {
  kind: 'VEHICLES',
  spreadsheet: false,
  encoding: 'windows-1252',
  separator: ';',
  headerRow: 1,
  headings: ['Kennzeichen', 'Typ', 'EZ'],
  samples: [['NF 1 X', 'Dunlin', '30.04.2019']],
  columns: { REGISTRATION: 0, MAKE_MODEL: 1, FIRST_REGISTERED: 2 },
  style: 'COMMA',
  order: 'DAY_FIRST',
  unit: 'KM',
  readOn: '2026-11-28',
  usageClass: 'PRIVATE',
  existing: 'SKIP',
  fields: [
    field('REGISTRATION', 'Registration', true),
    field('MAKE_MODEL', 'Make and model', true),
    field('FIRST_REGISTERED', 'First registered', true),
    field('OWNER', 'Owner'),
  ],
  missing: [],
  lines: [
    {
      line: 2,
      action: 'NEW',
      registration: 'NF 1 X',
      values: { REGISTRATION: 'NF 1 X', FIRST_REGISTERED: '30 Apr 2019' },
      problems: [],
      warnings: [],
    },
    {
      line: 3,
      action: 'BAD',
      registration: 'NF 2 X',
      values: { REGISTRATION: 'NF 2 X' },
      problems: [{ column: 'EZ', detail: '"bald" is not a date.' }],
      warnings: [],
    },
  ],
  total: 2,
  good: 1,
  bad: 1,
  actions: { NEW: 1, UPDATE: 0, SKIP: 0, SAME: 0, BAD: 1 },
};

function page(body: Preview = preview) {
  const calls = serve({
    ...manager,
    'GET /api/desk/choices': { body: { usageClasses: [{ code: 'PRIVATE', words: 'private' }] } },
    'GET /api/imports': { body: [] },
    'GET /api/imports/mappings': { body: [] },
    'POST /api/imports/preview': { body },
    'POST /api/imports': {
      body: { kind: 'VEHICLES', batch: 7, count: 1, made: 1, changed: 0, left: 0, bad: 1 },
    },
  });
  show(<ImportList />, '/', true);
  return calls;
}

const choose = async () =>
  fireEvent.change(await screen.findByLabelText('Choose a list'), {
    target: { files: [new File(['x'], 'liste.csv')] },
  });

it('shows how a list is understood, line by line, and takes the good ones only where that is said', async () => {
  const calls = page();
  await choose();

  const bad = (await screen.findByText('EZ: "bald" is not a date.')).closest('tr')!;
  expect(within(bad).getByText('3')).toBeTruthy();
  expect(screen.getByText('30 Apr 2019')).toBeTruthy();
  const take = screen.getByRole<HTMLButtonElement>('button', { name: 'Take in 1 line' });
  expect(take.disabled).toBe(true);

  fireEvent.click(screen.getByLabelText('the good ones, without the 1 at fault'));
  fireEvent.click(take);

  await screen.findByText(/1 vehicles taken in; 1 not taken/);
  expect(calls.some((c) => c.method === 'POST' && c.path === '/api/imports')).toBe(true);
});

it('asks for a column that is missing and takes nothing until it is named', async () => {
  page({
    ...preview,
    columns: { REGISTRATION: 0, MAKE_MODEL: 1 },
    missing: [field('FIRST_REGISTERED', 'First registered', true)],
    lines: [],
    total: 0,
    good: 0,
    bad: 0,
    actions: { NEW: 0, UPDATE: 0, SKIP: 0, SAME: 0, BAD: 0 },
  });
  await choose();

  expect(await screen.findByText('Say which column holds: first registered.')).toBeTruthy();
  await waitFor(() =>
    expect(screen.getByRole<HTMLButtonElement>('button', { name: /Take in/ }).disabled).toBe(true),
  );
});

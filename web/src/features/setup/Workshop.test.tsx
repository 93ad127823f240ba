import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import {
  distanceUnit,
  formatKm,
  formatMoney,
  formatNumber,
  formatTime,
  kmOf,
  writeAs,
} from '../../shared/format';
import { timeOf } from '../../shared/ui/TimeField';
import { sent, serve, show } from '../../test/render';
import Matching from './Matching';
import Workshop from './Workshop';

const house = {
  name: 'Holm Motors',
  currency: 'EUR',
  address: '',
  phone: '',
  email: '',
  taxNumber: '',
  zone: '',
  unit: 'KM',
  numbers: 'COMMA_POINT',
  zones: ['Atlantic/Faroe'],
  version: 2,
  changedBy: '',
} as Schemas['HouseView'];

const week = (
  ['MONDAY', 'TUESDAY', 'WEDNESDAY', 'THURSDAY', 'FRIDAY', 'SATURDAY', 'SUNDAY'] as const
).map((day, i) => ({ day, spans: i < 5 ? [{ from: '08:00:00', to: '12:00:00' }] : [] }));

const hours = { days: week, version: 4, changedBy: '' } as Schemas['OpeningView'];

afterEach(() => writeAs({ unit: 'KM', numbers: 'COMMA_POINT', zone: 'UTC' }));

function open() {
  const calls = serve({
    'GET /api/setup/house': { body: house },
    'GET /api/setup/hours': { body: hours },
    'GET /api/setup/closed-days': { body: [] },
    'PUT /api/setup/hours': {
      status: 422,
      body: {
        type: '/problems/invalid-input',
        title: 'Invalid input',
        status: 422,
        detail: 'x',
        errors: [{ pointer: '/days/0/spans/1', detail: 'Overlaps the hours beside it.' }],
      },
    },
    'POST /api/setup/closed-days/read': {
      body: [
        { id: 0, from: '2026-12-24', to: '2027-01-02', why: 'Works holiday', known: false },
        { id: 0, from: '2027-05-01', to: '2027-05-01', why: 'May day', known: true },
      ],
    },
    'POST /api/setup/closed-days': { body: [] },
  });
  show(<Workshop />);
  return calls;
}

it.each([
  ['7', '07:00'],
  ['730', '07:30'],
  ['7.30', '07:30'],
  ['07:30', '07:30'],
  ['7h30', '07:30'],
  ['18 Uhr', '18:00'],
  ['24:00', undefined],
  ['7:3', undefined],
  ['noon', undefined],
  ['7:75', undefined],
])('reads the time %s as %s', (text, time) => expect(timeOf(text)).toBe(time));

it('sends the hours with a break as it is typed and says what is wrong beside them', async () => {
  const calls = open();
  const monday = (await screen.findByText('Mon')).closest('tr')!;
  fireEvent.click(within(monday).getByText('Add a break'));
  fireEvent.change(screen.getByLabelText('Mon, from, after break 1'), {
    target: { value: '1130' },
  });
  fireEvent.change(screen.getByLabelText('Mon, to, after break 1'), { target: { value: '16' } });
  fireEvent.click(screen.getByText('Keep these hours'));
  await waitFor(() =>
    expect(sent(calls)[0]?.body).toMatchObject({
      version: 4,
      days: [
        { day: 'MONDAY', spans: [{}, { from: '11:30', to: '16:00' }] },
        {},
        {},
        {},
        {},
        {},
        {},
      ],
    }),
  );
  expect(await within(monday).findByText('Overlaps the hours beside it.')).toBeTruthy();
});

it('copies a day, frees one, and does not send what is no time', async () => {
  const calls = open();
  const sunday = (await screen.findByText('Sun')).closest('tr')!;
  fireEvent.click(within(sunday).getByText('As Mon'));
  expect((screen.getByLabelText('Sun, to') as HTMLInputElement).value).toBe('12:00');
  fireEvent.click(within(sunday).getByText('Free'));
  expect(screen.queryByLabelText('Sun, to')).toBeNull();
  fireEvent.change(screen.getByLabelText('Mon, from'), { target: { value: 'early' } });
  expect(await screen.findByText('A time of day, such as 07:30.')).toBeTruthy();
  fireEvent.click(screen.getByText('Keep these hours'));
  expect(sent(calls)).toHaveLength(0);
});

it('shows a calendar file before it is taken in, and takes in what is new', async () => {
  const calls = open();
  const input = (await screen.findByText(/Take in a calendar/)).querySelector('input')!;
  const file = new File(['BEGIN:VCALENDAR'], 'days.ics', { type: 'text/calendar' });
  fireEvent.change(input, { target: { files: [file] } });
  expect(
    await screen.findByText(/2 entries from today on; 1 of them on file already/),
  ).toBeTruthy();
  expect(screen.queryByText('May day')).toBeNull();
  fireEvent.click(screen.getByText('Close on it'));
  await waitFor(() =>
    expect(sent(calls).at(-1)?.body).toMatchObject({
      days: [{ from: '2026-12-24', why: 'Works holiday' }],
    }),
  );
});

// Source: NIST SP 811, appendix B: one international mile is 1.609344 km, so 100,000 miles are 160,934.4 km
it('writes figures as the workshop does', () => {
  expect(formatKm(160_934)).toBe('160,934\u00a0km');
  writeAs({ unit: 'MILES', numbers: 'POINT_COMMA', zone: 'UTC' });
  expect(formatKm(160_934)).toBe('100.000\u00a0mi');
  expect(kmOf(100_000)).toBe(160_934);
  expect(distanceUnit()).toBe('mi');
  expect(formatNumber(1234.5, 2)).toBe('1.234,5');
  expect(formatMoney(123_456, 'EUR')).toBe('€1.234,56');
  writeAs({ unit: 'KM', numbers: 'SPACE_COMMA', zone: 'UTC' });
  expect(formatMoney(123_456, 'EUR')).toBe('€1\u00a0234,56');
});

it('writes times in a zone this device does not know as the device has them', () => {
  writeAs({ unit: 'KM', numbers: 'COMMA_POINT', zone: 'GMT+02:00:30' });
  expect(formatTime('2026-11-28T10:30:00Z')).toMatch(/^\d\d:\d\d$/);
  writeAs({ unit: 'KM', numbers: 'COMMA_POINT', zone: 'Pacific/Kiritimati' });
  // Source: IANA time zone database; Kiritimati is 14 hours ahead of UTC
  expect(formatTime('2026-11-28T10:30:00Z')).toBe('00:30');
});

const vehicle = (id: number, families: string[]) => ({
  vehicleId: id,
  registration: `REG ${id}`,
  makeModel: 'Quillon Bay',
  engine: 'QB16',
  year: 2015,
  families: families.map((code) => ({ code, name: `Engine ${code}` })),
  version: 7,
});

it('gives the vehicles with one family theirs in a touch, and takes it back', async () => {
  const view = {
    rules: [],
    one: [vehicle(1, ['A']), vehicle(2, ['A'])],
    none: [],
    several: [vehicle(3, ['A', 'B'])],
  };
  const calls = serve({
    'GET /api/setup/matching': { body: view },
    'POST /api/setup/matching/families': {
      body: { now: { ...view, one: [] }, before: [{ vehicleId: 1, version: 8 }] },
    },
  });
  show(<Matching />);
  fireEvent.click(await screen.findByText('Give all 2 their engine'));
  await waitFor(() =>
    expect(sent(calls)[0]?.body).toEqual({
      choices: [
        { vehicleId: 1, family: 'A', version: 7 },
        { vehicleId: 2, family: 'A', version: 7 },
      ],
    }),
  );
  fireEvent.click(await screen.findByText('Take that back'));
  await waitFor(() =>
    expect(sent(calls)[1]?.body).toEqual({ choices: [{ vehicleId: 1, version: 8 }] }),
  );
  fireEvent.click(screen.getByText('Engine B'));
  await waitFor(() =>
    expect(sent(calls)[2]?.body).toEqual({ choices: [{ vehicleId: 3, family: 'B', version: 7 }] }),
  );
});

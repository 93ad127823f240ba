import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { insistable, problem, sent, serve, show } from '../../test/render';
import ReadingSheet from './ReadingSheet';

const row = (registration: string) => ({
  vehicleId: Number(registration.slice(-1)),
  registration,
  ownerName: 'Tamsin Orde',
  makeModel: 'Windle Lark 1.5',
});
const server = {
  'GET /api/me': {
    body: {
      role: 'MANAGER',
      today: '2026-11-25',
      currency: 'EUR',
      unit: 'KM',
      numbers: 'COMMA_POINT',
      zone: 'UTC',
    },
  },
  'GET /api/desk': { body: { rows: [row('SKR 1'), row('SKR 2'), row('SKR 3')] } },
  'GET /api/desk/choices': {
    body: { readingSources: [{ code: 'CUSTOMER', words: 'customer by phone' }] },
  },
};
const PATH = 'POST /api/vehicle-readings';

async function sheet(answer: { status?: number; body: unknown }) {
  const calls = serve({ ...server, [PATH]: answer });
  show(<ReadingSheet />, '/readings', true);
  await screen.findByLabelText('Odometer, line 3');
  const type = (line: number, value: string) =>
    fireEvent.change(screen.getByLabelText(`Odometer, line ${line}`), { target: { value } });
  return { calls, type };
}

describe('the sheet of readings', () => {
  it('sends the lines that hold a reading, and only those', async () => {
    const { calls, type } = await sheet({ body: { count: 2 } });
    type(1, '98,000');
    type(3, '45000');
    fireEvent.click(screen.getByRole('button', { name: 'Record 2 readings' }));
    await screen.findByText(/2 readings recorded/);
    expect((sent(calls)[0]!.body as { lines: unknown[] }).lines).toEqual([
      { registration: 'SKR 1', date: '2026-11-25', value: 98_000, insist: false },
      { registration: 'SKR 3', date: '2026-11-25', value: 45_000, insist: false },
    ]);
  });

  it('puts what is wrong beside the line it is wrong in', async () => {
    const { type } = await sheet(problem('/lines/0/value', '3 km runs backwards.'));
    type(2, '3');
    fireEvent.click(screen.getByRole('button', { name: 'Record 1 reading' }));
    const note = await screen.findByText('3 km runs backwards.');
    expect(note.closest('tr')!.querySelector('input')!.value).toBe('SKR 2');
    expect(screen.queryByRole('checkbox')).toBeNull();
  });

  it('lets one insist where the server would take it', async () => {
    const { calls, type } = await sheet(insistable('/lines/0/value', '3 km runs backwards.'));
    type(2, '3');
    fireEvent.click(screen.getByRole('button', { name: 'Record 1 reading' }));
    await screen.findByText('3 km runs backwards.');
    fireEvent.click(screen.getByRole('checkbox'));
    fireEvent.click(screen.getByRole('button', { name: 'Record 1 reading' }));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    expect(
      (sent(calls)[1]!.body as { lines: { insist: boolean }[] }).lines.map((l) => l.insist),
    ).toEqual([true]);
  });

  it('does not send what is no number', async () => {
    const { type } = await sheet({ body: { count: 0 } });
    type(1, 'about 90');
    expect(screen.getByRole('alert').textContent).toContain('“about 90” is not a number');
    expect(screen.getByRole('button', { name: /^Record/ })).toHaveProperty('disabled', true);
  });
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { problem, sent, serve, show } from '../../test/render';
import Assumptions from './Assumptions';

const assumption = (name: string, more: object = {}) => ({
  name,
  group: 'Odometer',
  words: `About ${name}`,
  unit: 'km',
  usual: 1_500,
  value: 1_500,
  min: 100,
  max: 3_000,
  whole: true,
  ...more,
});
const view = {
  version: 7,
  assumptions: [
    assumption('most'),
    assumption('idle', {
      usual: 50,
      value: 60,
      min: 0,
      changedBy: 'Ines Carrow',
      changedAt: '2026-11-20T08:00:00Z',
    }),
  ],
  classes: [
    { name: 'private', vehicles: 180, learned: true, needed: 20, mean: 11_400, spread: 4_100 },
    { name: 'taxi', vehicles: 10, learned: false, needed: 20, mean: 60_000, spread: 12_000 },
  ],
  changes: [
    {
      at: '2026-11-20T08:00:00Z',
      by: 'Ines Carrow',
      what: 'About idle',
      before: '50',
      after: '60',
    },
  ],
};
const path = '/api/setup/assumptions';

async function open(answers: Parameters<typeof serve>[0] = {}) {
  const calls = serve({ [`GET ${path}`]: { body: view }, ...answers });
  show(<Assumptions />);
  const most = await screen.findByLabelText<HTMLInputElement>('About most');
  const type = (value: string) => {
    fireEvent.change(most, { target: { value } });
    fireEvent.blur(most);
  };
  return { calls, most, type };
}
const button = (name: string) => screen.getByRole('button', { name });

describe('assumptions', () => {
  it('say what is usual, who changed what, and what the classes have learned', async () => {
    await open();
    expect(screen.getByText(/usual 50; Ines Carrow, 20 Nov/)).toBeTruthy();
    expect(screen.getByText(/About idle: 50, now 60/)).toBeTruthy();
    expect(screen.getByText('private').closest('tr')!.textContent).toContain('11,400');
    expect(screen.getByText('as assumed; 20 needed').closest('tr')!.textContent).toContain('taxi');
    expect(button('Keep these figures')).toHaveProperty('disabled', true);
  });

  it('write shares in per cent and keep them as shares', async () => {
    const share = assumption('lost', {
      unit: '%',
      share: true,
      whole: false,
      usual: 0.05,
      value: 0.25,
      max: 0.9,
    });
    const { calls } = await open({
      [`GET ${path}`]: { body: { ...view, assumptions: [...view.assumptions, share] } },
      [`PUT ${path}`]: { body: view },
    });
    const field = screen.getByLabelText<HTMLInputElement>('About lost');
    expect(field.value).toBe('25');
    expect(screen.getByText(/^usual 5( |$)/)).toBeTruthy();
    fireEvent.change(field, { target: { value: '0.29' } });
    fireEvent.blur(field);
    fireEvent.click(button('Keep these figures'));
    await waitFor(() =>
      expect(sent(calls)[0]?.body).toEqual({ amounts: { lost: 0.0029 }, version: 7 }),
    );
  });

  it('send only what was changed, first as a question', async () => {
    const { calls, type } = await open({
      [`POST ${path}/preview`]: {
        body: {
          vehicles: 63,
          newStatus: 4,
          moves: [
            {
              vehicleId: 5,
              registration: 'SKR 5',
              ownerName: 'R',
              before: 'Clear',
              after: 'Coming',
            },
          ],
        },
      },
      [`PUT ${path}`]: { body: { ...view, version: 8 } },
    });
    type('900');
    fireEvent.click(button('What would it move?'));
    await screen.findByText('63 vehicles would move, 4 to another status');
    expect(
      screen.getByText('The 1 worst are shown; the others are on the Desk once it is kept.'),
    ).toBeTruthy();
    fireEvent.click(button('Keep these figures'));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    for (const call of sent(calls)) {
      expect(call.body).toEqual({ amounts: { most: 900 }, version: 7 });
    }
  });

  it('forget a preview that no longer fits what is typed', async () => {
    const { type } = await open({
      [`POST ${path}/preview`]: { body: { vehicles: 0, newStatus: 0, moves: [] } },
    });
    type('900');
    fireEvent.click(button('What would it move?'));
    await screen.findByText('No vehicle would move');
    type('901');
    expect(screen.queryByText('No vehicle would move')).toBeNull();
  });

  it('say beside the field what is wrong, and are put back', async () => {
    const { most, type } = await open({
      [`PUT ${path}`]: problem('/amounts/most', 'At most 3,000 km.'),
    });
    type('2999');
    fireEvent.click(button('Keep these figures'));
    const note = await screen.findByText('At most 3,000 km.');
    expect(note.closest('.setting')!.contains(most)).toBe(true);
    expect(screen.queryByText('Not done.')).toBeNull();
    fireEvent.click(button('Put back'));
    expect(most.value).toBe('1500');
  });

  it('go back to usual one by one', async () => {
    const { calls } = await open({ [`PUT ${path}`]: { body: view } });
    fireEvent.click(screen.getByRole('button', { name: 'as usual' }));
    fireEvent.click(button('Keep these figures'));
    await waitFor(() =>
      expect(sent(calls)[0]!.body).toEqual({ amounts: { idle: 50 }, version: 7 }),
    );
  });
});

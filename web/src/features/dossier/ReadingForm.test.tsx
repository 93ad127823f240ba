import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { insistable, problem, sent, serve, show } from '../../test/render';
import { ReadingForm } from './ReadingForm';

const vehicle = { id: 7, version: 1 } as Schemas['DossierView'];
const path = 'POST /api/vehicles/7/readings';

function form() {
  const close = vi.fn();
  show(<ReadingForm v={vehicle} today="2026-11-25" onClose={close} />);
  const type = (value: string) =>
    fireEvent.change(screen.getByLabelText('Odometer'), { target: { value } });
  const record = () => fireEvent.click(screen.getByRole('button', { name: 'Record it' }));
  return { close, type, record };
}

describe('an odometer reading', () => {
  it('is sent as typed, thousands marks aside, and closes the form', async () => {
    const calls = serve({ [path]: { body: { id: 1 } } });
    const { close, type, record } = form();
    type('138,000');
    record();
    await waitFor(() => expect(close).toHaveBeenCalled());
    expect(sent(calls)[0]!.body).toEqual({
      value: 138_000,
      unit: 'KM',
      date: '2026-11-25',
      source: 'CUSTOMER',
      insist: false,
    });
  });

  it('that is no number does not leave the form', () => {
    const calls = serve({});
    const { type, record } = form();
    type('about 90');
    record();
    expect(screen.getByText('“about 90” is not a number.')).toBeTruthy();
    expect(sent(calls)).toHaveLength(0);
  });

  it('that is typed with its unit, in the style of the decimal comma, is taken for what it is', async () => {
    const calls = serve({ [path]: { body: {} } });
    const { type, record } = form();
    type('64.785,5 mi');
    expect(screen.getByText('= 64,785.5')).toBeTruthy();
    record();
    await waitFor(() =>
      expect(sent(calls)[0]?.body).toMatchObject({ value: 64_785.5, unit: 'MILES' }),
    );
  });

  it('that does not fit may be insisted on', async () => {
    const calls = serve({ [path]: insistable('/value', '5 km runs backwards.') });
    const { type, record } = form();
    type('5');
    record();
    await screen.findByText('5 km runs backwards.');
    fireEvent.click(screen.getByRole('button', { name: 'Record it all the same' }));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    expect((sent(calls)[1]!.body as { insist: boolean }).insist).toBe(true);
  });

  it('that no odometer shows may not', async () => {
    serve({
      [path]: problem('/value', 'An odometer shows 0 to 5,000,000 km; 9999999999 is not one.'),
    });
    const { type, record } = form();
    type('9999999999');
    record();
    await screen.findByText(/is not one/);
    expect(screen.queryByRole('button', { name: 'Record it all the same' })).toBeNull();
    expect((screen.getByLabelText('Odometer') as HTMLInputElement).value).toBe('9999999999');
  });

  it('stays in the form when the server does not answer', async () => {
    serve({});
    const { close, type, record } = form();
    type('138000');
    record();
    await screen.findByText(/What you typed is still here/);
    expect(close).not.toHaveBeenCalled();
  });
});

import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { sent, serve, show } from '../../test/render';
import { ToTell } from './ToTell';

const line = (id: number, movedTo?: string) => ({
  id,
  what: 'PROMISE',
  words: '',
  jobId: 7,
  vehicleId: 3,
  registration: `T ${id}`,
  makeModel: 'Test',
  ownerName: 'Keren Moll',
  ownerPhone: '0555 1',
  promised: '2026-11-30T08:00:00',
  movedTo,
  by: 'Ines Carrow',
  at: '2026-11-29T08:00:00Z',
  ways: [{ channel: 'TEXT', words: 'by text message' }],
  version: 2,
});

describe('owners to be told', () => {
  it('are said with both times and told in one touch', async () => {
    const calls = serve({
      'GET /api/told': { body: [line(1, '2026-12-04T10:30:00'), line(2)] },
      'POST /api/told/1': { body: [line(2)] },
      'POST /api/told/2': { body: [] },
    });
    show(<ToTell />);
    await screen.findByText('2 owners to be told');
    expect(screen.getByText(/now Fri 4 Dec 10:30/)).toBeTruthy();
    expect(screen.getByText('has no time any more')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'T 1: told by phone' }));
    await screen.findByText('1 owner to be told');
    expect(sent(calls)[0]!.body).toEqual({ how: 'PHONE', version: 2 });
    fireEvent.click(screen.getByRole('button', { name: 'T 2: write by text message' }));
    await waitFor(() => expect(sent(calls)).toHaveLength(2));
    expect(sent(calls)[1]!.body).toEqual({ how: 'MESSAGE', channel: 'TEXT', version: 2 });
  });

  it('hear of a later end and of a price above what they agreed to', async () => {
    serve({
      'GET /api/told': {
        body: [
          { ...line(1, '2026-12-04T10:30:00'), what: 'READY' },
          {
            ...line(2),
            what: 'PRICE',
            promised: undefined,
            words: 'agreed at €90, now €120',
            ways: [],
          },
        ],
      },
    });
    show(<ToTell />);
    expect(await screen.findByText(/ready Mon 30 Nov 08:00/)).toBeTruthy();
    const price = screen.getByRole('link', { name: 'agreed at €90, now €120' });
    expect(price.getAttribute('href')).toBe('/jobs/7');
  });

  it('are not mentioned where there are none', async () => {
    serve({ 'GET /api/told': { body: [] } });
    const { container } = show(<ToTell />);
    await new Promise((r) => setTimeout(r, 50));
    expect(container.innerHTML).toBe('');
  });
});

import { fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { problem, serve, show } from '../../test/render';
import Recall from './Recall';

const row = (vehicleId: number, registration: string, jobId?: number) => ({
  vehicleId,
  registration,
  makeModel: 'Test',
  ownerName: 'Tamsin Orde',
  ownerPhone: '0555 1',
  on: '2026-01-05',
  km: 90_000,
  jobId,
  what: 'Timing belt: QX 55',
});

const find = () => {
  fireEvent.change(screen.getByLabelText('Part number, or some of it'), {
    target: { value: 'qx55' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Find them' }));
};

describe('a recall', () => {
  it('makes a follow-up for each vehicle that stays chosen, once for each', async () => {
    const calls = serve({
      'GET /api/engines': { body: [] },
      'GET /api/recall': { body: [row(1, 'A 1', 7), row(1, 'A 1'), row(2, 'B 2'), row(3, 'C 3')] },
      'POST /api/recall/follow-ups': { body: { made: 1, open: 1 } },
    });
    show(<Recall />);
    find();
    await screen.findByText('3 vehicles');
    fireEvent.click(screen.getByLabelText('Follow up C 3'));
    fireEvent.change(screen.getByLabelText('What is to be done'), { target: { value: 'look' } });
    fireEvent.click(screen.getByRole('button', { name: 'Make follow-ups' }));
    await screen.findByText(/1 made; 1 had the same one open already/);
    const sent = calls.find((c) => c.method === 'POST')?.body as { targets: unknown[] };
    expect(sent.targets.map((t) => (t as { vehicleId: number }).vehicleId)).toEqual([1, 2]);
  });

  it('says that nobody has it, and what is wrong with the question', async () => {
    serve({ 'GET /api/engines': { body: [] }, 'GET /api/recall': { body: [] } });
    const first = show(<Recall />);
    find();
    await screen.findByText('No vehicle on file has it.');
    first.unmount();
    serve({
      'GET /api/engines': { body: [] },
      'GET /api/recall': problem('/q', 'Say what to look for.'),
    });
    show(<Recall />);
    find();
    await screen.findByText('Say what to look for.');
  });
});

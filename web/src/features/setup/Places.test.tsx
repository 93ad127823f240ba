import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { problem, serve, show } from '../../test/render';
import Places from './Places';

const bay = { id: 1, name: 'Ramp', note: 'two posts', liftClass: 2, active: true, version: 3 };

describe('bays and fleets', () => {
  it('says what a workshop without a bay cannot do, and makes one', async () => {
    const calls = serve({
      'GET /api/setup/bays': { body: [] },
      'GET /api/setup/fleets': { body: [] },
      'POST /api/setup/bays': { body: [bay] },
    });
    show(<Places />);
    await screen.findByText(/none can be promised/);
    fireEvent.click(screen.getByText('Add a bay'));
    fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Ramp' } });
    fireEvent.click(screen.getByRole('button', { name: 'Add' }));
    await waitFor(() =>
      expect(calls.find((c) => c.method === 'POST')?.body).toEqual({
        name: 'Ramp',
        note: '',
        liftClass: 1,
      }),
    );
    // the form closes once it is saved
    await screen.findByText('Add a bay');
  });

  it('keeps what was typed and says beside the field what is wrong', async () => {
    serve({
      'GET /api/setup/bays': { body: [bay] },
      'GET /api/setup/fleets': { body: [] },
      'PUT /api/setup/bays/1': problem('/name', 'There is a bay "Pit" already.'),
    });
    show(<Places />);
    fireEvent.click(await screen.findByText('Change'));
    fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Pit' } });
    fireEvent.click(screen.getByRole('button', { name: 'Save' }));
    await screen.findByText('There is a bay "Pit" already.');
    expect((screen.getByLabelText('Name') as HTMLInputElement).value).toBe('Pit');
  });

  it('gives a bay up with its version', async () => {
    const calls = serve({
      'GET /api/setup/bays': { body: [bay] },
      'GET /api/setup/fleets': { body: [] },
      'PUT /api/setup/bays/1': { body: [{ ...bay, active: false }] },
    });
    show(<Places />);
    fireEvent.click(await screen.findByText('Give up'));
    await waitFor(() =>
      expect(calls.find((c) => c.method === 'PUT')?.body).toMatchObject({
        active: false,
        version: 3,
      }),
    );
  });
});

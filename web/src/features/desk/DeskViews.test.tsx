import { fireEvent, screen, waitFor } from '@testing-library/react';
import { useSearchParams } from 'react-router';
import { describe, expect, it } from 'vitest';
import { problem, sent, serve, show } from '../../test/render';
import { Moved, SavedViews } from './DeskViews';

const Address = () => <output>{useSearchParams()[0].toString()}</output>;
const views = 'GET /api/desk/views';
const kept = [{ id: 4, name: 'vans', query: 'fleet=1&drive=BELT' }];

function open(answers: Parameters<typeof serve>[0], path: string) {
  const calls = serve(answers);
  show(
    <>
      <SavedViews />
      <Address />
    </>,
    path,
  );
  fireEvent.click(screen.getByRole('button', { name: 'Views' }));
  return calls;
}

describe('views with a name', () => {
  it('open the list as it was narrowed', async () => {
    open({ [views]: { body: kept } }, '/?q=orde');
    fireEvent.click(await screen.findByRole('button', { name: 'vans' }));
    await waitFor(() =>
      expect(document.querySelector('output')!.textContent).toBe('fleet=1&drive=BELT'),
    );
  });

  it('keep the filters and nothing else of the address', async () => {
    const calls = open(
      { [views]: { body: [] }, 'POST /api/desk/views': { body: kept } },
      '/?fleet=1&drive=BELT&sel=12',
    );
    await screen.findByText(/No view kept yet/);
    fireEvent.change(screen.getByLabelText('Name for the list as it is narrowed now'), {
      target: { value: 'vans' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() =>
      expect(sent(calls)[0]!.body).toEqual({ name: 'vans', query: 'fleet=1&drive=BELT' }),
    );
    // the list is the one of that name now, and its button says so
    await waitFor(() => expect(screen.getAllByRole('button', { name: 'vans' })).toHaveLength(2));
  });

  it('do not keep a list that is not narrowed', async () => {
    open({ [views]: { body: kept } }, '/?sel=12');
    fireEvent.change(await screen.findByLabelText('Name for the list as it is narrowed now'), {
      target: { value: 'all' },
    });
    expect(screen.getByRole('button', { name: 'Keep' })).toHaveProperty('disabled', true);
    expect(screen.getByText(/nothing to keep/)).toBeTruthy();
  });

  it('say beside the field what is wrong, and can be removed', async () => {
    const calls = open(
      {
        [views]: { body: kept },
        'POST /api/desk/views': problem('/name', '30 views are kept at most.'),
        'DELETE /api/desk/views/4': { body: [] },
      },
      '/?q=orde',
    );
    fireEvent.change(await screen.findByLabelText('Name for the list as it is narrowed now'), {
      target: { value: 'more' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
    await screen.findByText('30 views are kept at most.');
    fireEvent.click(screen.getByRole('button', { name: 'Remove the view vans' }));
    await screen.findByText(/No view kept yet/);
    expect(sent(calls).at(-1)!.method).toBe('DELETE');
  });
});

describe('vehicles that moved', () => {
  const moved = { at: '2026-11-25T09:45:00Z', why: 'with the changed assumptions', count: 2 };

  it('are told, shown before and after, and put away', async () => {
    serve({
      'GET /api/desk/moves': {
        body: [
          {
            vehicleId: 5,
            registration: 'SKR 5',
            ownerName: 'Ruan Keast',
            before: 'Coming',
            actByBefore: '2027-03-06',
            after: 'Act now',
            actByAfter: '2026-11-25',
          },
        ],
      },
    });
    show(<Moved moved={moved} />);
    expect(screen.getByRole('status').textContent).toContain(
      '2 vehicles moved with the changed assumptions',
    );
    fireEvent.click(screen.getByRole('button', { name: 'Show' }));
    const row = (await screen.findByText('SKR 5')).closest('tr')!;
    expect(row.textContent).toContain('Coming, 6 Mar 2027');
    expect(row.textContent).toContain('Act now, 25 Nov 2026');
    fireEvent.click(screen.getByRole('button', { name: 'Seen' }));
    expect(screen.queryByText(/moved with/)).toBeNull();
  });

  it('are one vehicle where it is one, and moved by the day where the day turned', () => {
    serve({});
    show(<Moved moved={{ ...moved, why: 'with the new day', count: 1 }} />);
    expect(screen.getByRole('status').textContent).toContain('1 vehicle moved with the new day');
  });
});

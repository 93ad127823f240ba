import { fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { deskRow, deskView, manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import { DeskRows, Groups } from './DeskRows';

beforeAll(() => {
  // a list of fifteen rows' height, which jsdom does not lay out
  Object.defineProperty(HTMLElement.prototype, 'clientHeight', { value: 660 });
  Object.defineProperty(HTMLElement.prototype, 'clientWidth', { value: 776 });
});

const many = Array.from({ length: 100 }, (_, i) =>
  deskRow(i + 1, i === 0 ? { status: 'STOP', note: 'do not run' } : {}),
);
const first = deskView(many, { STOP: 1, OVERDUE: 149 });

function list(more: { selected?: number; selectedId?: number } = {}) {
  const select = vi.fn();
  const known = vi.fn();
  const calls = serve({
    ...manager,
    'GET /api/desk': {
      body: deskView(
        Array.from({ length: 50 }, (_, i) => deskRow(i + 101)),
        { STOP: 1, OVERDUE: 149 },
        { offset: 100 },
      ),
    },
  });
  show(
    <DeskRows
      filter={{}}
      first={first}
      selected={0}
      onSelect={select}
      onRows={known}
      next={(row) => <b>{row.nextStepWords}</b>}
      {...more}
    />,
    '/',
    true,
  );
  return { select, known, pages: () => calls.filter((c) => c.path === '/api/desk').length };
}

const registrations = () =>
  [...document.querySelectorAll('.row .registration')].map((r) => r.textContent);

describe('the Desk’s list', () => {
  it('draws what is in sight, each status under its heading with its count', async () => {
    const { pages } = list();
    await screen.findByText('SKR 1');
    const drawn = [...document.querySelectorAll('.group-head, .row')].slice(0, 4);
    expect(drawn.map((d) => d.textContent!.replaceAll(/\s+/g, ' ').trim().slice(0, 11))).toEqual([
      'Stop 1',
      'SKR 1Tamsin',
      'Overdue 149',
      'SKR 2Tamsin',
    ]);
    expect(registrations().length).toBeLessThan(40);
    expect(registrations()).toEqual(
      many.slice(0, registrations().length).map((r) => r.registration),
    );
    expect(pages()).toBe(0);
  });

  it('tells which rows are at hand and which one was chosen', async () => {
    const { select, known } = list();
    fireEvent.click((await screen.findByText('SKR 3')).closest('.row')!);
    expect(select).toHaveBeenCalledWith(2, many[2]);
    const rows = known.mock.lastCall![0] as Map<number, { vehicleId: number }>;
    expect(rows.get(99)!.vehicleId).toBe(100);
  });

  it('marks the vehicle whose dossier is open, never another that took its place', async () => {
    list({ selected: 4, selectedId: 999 });
    await screen.findByText('SKR 5');
    expect(document.querySelector('.row[aria-current="true"]')).toBeNull();
  });

  it('marks it where it is in the list', async () => {
    list({ selected: 4, selectedId: 5 });
    await screen.findByText('SKR 5');
    expect(document.querySelector('.row[aria-current="true"]')!.textContent).toContain('SKR 5');
  });

  it('asks for the pages that paper needs and draws every row', async () => {
    const { pages } = list();
    await screen.findByText('SKR 1');
    fireEvent(window, new Event('beforeprint'));
    await screen.findByText('SKR 150');
    expect(registrations()).toHaveLength(150);
    expect(pages()).toBe(1);
    fireEvent(window, new Event('afterprint'));
    await waitFor(() => expect(screen.queryByText('SKR 150')).toBeNull());
  });
});

describe('the chips above the list', () => {
  it('choose statuses one by one, and those that are set aside', () => {
    const choose = vi.fn();
    const aside = vi.fn();
    const whileHere = vi.fn();
    serve(manager);
    show(
      <Groups
        view={deskView([], { STOP: 1, COMING: 1_265 }, { aside: 2, whileHere: 7 })}
        chosen={['STOP']}
        aside={false}
        whileHere={false}
        onWhileHere={whileHere}
        onChoose={choose}
        onAside={aside}
      />,
    );
    expect(screen.getByRole('button', { name: 'Stop 1' }).getAttribute('aria-pressed')).toBe(
      'true',
    );
    fireEvent.click(screen.getByRole('button', { name: 'Coming 1,265' }));
    expect(choose).toHaveBeenCalledWith(['STOP', 'COMING']);
    fireEvent.click(screen.getByRole('button', { name: 'Stop 1' }));
    expect(choose).toHaveBeenLastCalledWith([]);
    fireEvent.click(screen.getByRole('button', { name: 'Set aside 2' }));
    expect(aside).toHaveBeenCalledWith(true);
    fireEvent.click(screen.getByRole('button', { name: 'Worth doing on a visit 7' }));
    expect(whileHere).toHaveBeenCalled();
  });
});

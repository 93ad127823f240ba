import { fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import Find from './Find';

const found = (from: number, count: number) => ({
  total: 130,
  vehicles: Array.from({ length: count }, (_, i) => ({
    vehicleId: from + i,
    registration: `V ${from + i}`,
    makeModel: 'Test',
    ownerName: 'Many Lanyon',
    statusCode: 'CLEAR',
    status: 'Clear',
  })),
  owners: [{ id: 5, name: 'Many Lanyon', phone: '0555 7', vehicles: 130 }],
  families: [],
  jobs: [],
});

describe('everything that was found', () => {
  it('is counted and reached to the last', async () => {
    const pages = [found(1, 100), found(101, 30)];
    serve({ ...manager, 'GET /api/find': () => ({ body: pages.shift() ?? found(1, 0) }) });
    show(<Find />, '/find?q=lanyon', true);
    await screen.findByText(/130 vehicles, 100 of them here, worst first/);
    fireEvent.click(screen.getByRole('button', { name: 'Show 30 more' }));
    await screen.findByText('V 130');
    expect(screen.getByText('130 vehicles, worst first')).toBeTruthy();
    expect(screen.getAllByRole('link', { name: 'Many Lanyon' })[0]?.getAttribute('href')).toBe(
      '/owners/5',
    );
  });

  it('says that nothing was, and how to find more', async () => {
    serve({
      ...manager,
      'GET /api/find': { body: { total: 0, vehicles: [], owners: [], families: [], jobs: [] } },
    });
    show(<Find />, '/find?q=zzzz', true);
    await screen.findByText(/Nothing found for “zzzz”/);
  });
});

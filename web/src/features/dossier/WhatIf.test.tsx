import { fireEvent, screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { dueWindow } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import { WhatIf } from './WhatIf';

const answer = (sentence: string) => ({ body: { sentence, window: dueWindow } });
const path = 'GET /api/vehicles/7/what-if';

function open() {
  show(
    <WhatIf
      vehicleId={7}
      window={dueWindow}
      today="2026-11-25"
      usage={{ kmPerYear: 20_000 } as Schemas['UsageView']}
    />,
  );
  return screen.getByRole('slider');
}

describe('what if she waits', () => {
  it('asks nothing until a day is chosen', () => {
    const calls = serve({});
    const handle = open();
    expect(handle.getAttribute('aria-valuenow')).toBe('0');
    expect(calls).toHaveLength(0);
  });

  it('moves by a week with an arrow, by a month with a page key, and is put back', async () => {
    const calls = serve({ [path]: answer('Wait until 1 Jan 2027: 140,000 km.') });
    const handle = open();
    fireEvent.keyDown(handle, { key: 'ArrowRight' });
    fireEvent.keyDown(handle, { key: 'PageUp' });
    const day = screen.getByLabelText('Wait until') as HTMLInputElement;
    expect(day.value).toBe('2 Jan 2027');
    expect((await screen.findByText(/Wait until 1 Jan 2027/)).textContent).toContain('140,000 km');
    expect(calls.map((c) => c.path)).toEqual(['/api/vehicles/7/what-if']);
    expect(handle.getAttribute('aria-valuetext')).toContain('140,000 km');
    fireEvent.click(screen.getByRole('button', { name: 'Put back' }));
    expect(day.value).toBe('25 Nov 2026');
    expect(screen.queryByText(/140,000 km/)).toBeNull();
  });

  it('never goes before today', () => {
    serve({});
    const handle = open();
    fireEvent.keyDown(handle, { key: 'PageDown' });
    expect((screen.getByLabelText('Wait until') as HTMLInputElement).value).toBe('25 Nov 2026');
  });

  it('takes another yearly distance', async () => {
    serve({ [path]: answer('Wait until 25 Nov 2026: 138,000 km.') });
    open();
    fireEvent.change(screen.getByLabelText('Yearly distance, km'), { target: { value: '46,000' } });
    await waitFor(() => expect(screen.getByText(/Wait until 25 Nov/)).toBeTruthy());
  });
});

import { fireEvent, screen } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import Owner from './Owner';

const owner = {
  id: 4,
  name: 'Keren Moll',
  kind: 'PERSON',
  address: '',
  email: '',
  prefers: 'PHONE',
  language: '',
  mayWrite: true,
  speakers: [],
  phones: [
    { number: '0555 1', label: 'home' },
    { number: '0555 2', label: '' },
  ],
  version: 3,
};
const vehicle = (vehicleId: number, registration: string) => ({
  vehicleId,
  registration,
  makeModel: 'Test',
  status: 'CLEAR',
  statusWords: 'Clear',
});
const alike = { id: 9, name: 'K. Moll', kind: 'person', phone: '0555 1', vehicles: 1 };
const page = {
  owner,
  vehicles: [vehicle(1, 'A 1'), vehicle(2, 'B 2')],
  alike: [alike],
  changes: [],
  kinds: [{ code: 'PERSON', words: 'person' }],
  prefers: [{ code: 'PHONE', words: 'by phone' }],
};

const open = () =>
  show(
    <Routes>
      <Route path="/owners/:id" element={<Owner />} />
    </Routes>,
    '/owners/4',
    true,
  );

describe('an owner', () => {
  it('is kept with the number to ring first and without empty ones, and a fault stands beside its field', async () => {
    const calls = serve({
      ...manager,
      'GET /api/owners/4': { body: page },
      'PUT /api/owners/4': problem('/email', 'An e-mail address has a name.'),
    });
    open();
    fireEvent.click(await screen.findByRole('button', { name: 'Ring first' }));
    fireEvent.click(screen.getByRole('button', { name: 'Another number' }));
    fireEvent.change(screen.getByLabelText('E-mail, if known'), { target: { value: 'x' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep, for 2 vehicles' }));
    await screen.findByText('An e-mail address has a name.');
    const sent = calls.find((c) => c.method === 'PUT')?.body as typeof owner;
    expect(sent.phones.map((p) => p.number)).toEqual(['0555 2', '0555 1']);
    expect(sent.version).toBe(3);
    expect((screen.getByLabelText('E-mail, if known') as HTMLInputElement).value).toBe('x');
  });

  it('says what is wrong with a number beside that number, and lets nothing empty through', async () => {
    const calls = serve({
      ...manager,
      'GET /api/owners/4': { body: page },
      'PUT /api/owners/4': problem('/phones/1/number', 'A number has digits.'),
    });
    open();
    fireEvent.change(await screen.findByLabelText('Phone 1'), { target: { value: '' } });
    fireEvent.change(screen.getByLabelText('Whose or which, phone 1'), { target: { value: '' } });
    fireEvent.click(screen.getByRole('button', { name: 'Another number' }));
    fireEvent.change(screen.getByLabelText('Phone 3'), { target: { value: 'none' } });
    fireEvent.click(screen.getByRole('button', { name: 'Keep, for 2 vehicles' }));
    const note = await screen.findByText('A number has digits.');
    const sent = calls.find((c) => c.method === 'PUT')?.body as typeof owner;
    expect(sent.phones.map((p) => p.number)).toEqual(['0555 2', 'none']);
    const before = note.closest('fieldset')?.querySelectorAll('.phone-row')[1];
    expect(before?.nextElementSibling?.textContent).toBe('A number has digits.');
    expect((screen.getByLabelText('Phone 2') as HTMLInputElement).value).toBe('none');
  });

  it('is made one with another as that one stands now', async () => {
    const calls = serve({
      ...manager,
      'GET /api/owners/4': { body: page },
      'GET /api/owners/9': {
        body: { ...page, owner: { ...owner, id: 9, name: 'K. Moll', version: 8 } },
      },
      'POST /api/owners/4/merge': { body: { ...page, owner: { ...owner, id: 9 } } },
    });
    open();
    fireEvent.click(await screen.findByRole('button', { name: 'Make one' }));
    const keep = await screen.findByRole('button', { name: 'Keep K. Moll' });
    await expect.poll(() => (keep as HTMLButtonElement).disabled).toBe(false);
    fireEvent.click(keep);
    await expect
      .poll(() => calls.find((c) => c.method === 'POST')?.body)
      .toEqual({ version: 3, into: 9, intoVersion: 8 });
  });

  it('gives the vehicles that are ticked to another', async () => {
    const calls = serve({
      ...manager,
      'GET /api/owners/4': { body: page },
      'POST /api/owners/4/split': { body: { ...page, vehicles: [vehicle(1, 'A 1')] } },
    });
    open();
    fireEvent.click(await screen.findByRole('button', { name: "Some are another's…" }));
    fireEvent.click(screen.getByLabelText("B 2 is another's"));
    fireEvent.change(screen.getByLabelText('Name of the other owner'), {
      target: { value: 'Davy Moll' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Give 1 vehicle over' }));
    await expect
      .poll(() => calls.find((c) => c.method === 'POST')?.body)
      .toEqual({ version: 3, name: 'Davy Moll', phone: '', vehicles: [2] });
  });

  it('is erased by a manager who writes the name, and by nobody else', async () => {
    const calls = serve({
      ...manager,
      'GET /api/owners/4': { body: page },
      'POST /api/owners/4/erasure': problem('/name', 'Write the name as it stands on file.'),
    });
    const { unmount } = open();
    fireEvent.click(await screen.findByRole('button', { name: /Erase this owner/ }));
    expect(screen.getByRole('button', { name: 'Erase for good' })).toHaveProperty('disabled', true);
    fireEvent.change(screen.getByLabelText('The owner’s name, to confirm'), {
      target: { value: 'Keren' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Erase for good' }));
    await screen.findByText('Write the name as it stands on file.');
    expect(sent(calls)[0]?.body).toEqual({ name: 'Keren', version: 3 });
    unmount();

    const desk = { ...manager['GET /api/me'].body, role: 'FRONT_DESK' };
    serve({ 'GET /api/me': { body: desk }, 'GET /api/owners/4': { body: page } });
    open();
    await screen.findByText('A copy of all of it, for the owner');
    expect(screen.queryByRole('button', { name: /Erase/ })).toBeNull();
  });
});

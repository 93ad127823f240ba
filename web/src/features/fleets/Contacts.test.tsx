import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { Contacts } from './Contacts';

it('keeps who else speaks for a fleet, with what is wrong beside its line', async () => {
  let refused = true;
  const calls = serve({
    ...manager,
    'GET /api/fleets/3/contacts': { body: { contacts: [], version: 7 } },
    'PUT /api/fleets/3/contacts': () =>
      refused
        ? problem('/contacts/0/phone', 'How is this one reached?')
        : { body: { contacts: [], version: 8 } },
  });
  show(<Contacts fleetId={3} />, '/', true);
  fireEvent.click(await screen.findByRole('button', { name: 'Add who else speaks for it' }));
  fireEvent.change(screen.getByLabelText('Name'), { target: { value: 'Åse Bø' } });
  fireEvent.click(await screen.findByRole('button', { name: /Keep them/ }));
  expect(await screen.findByText('How is this one reached?')).toBeTruthy();
  refused = false;
  fireEvent.change(screen.getByLabelText('Phone'), { target: { value: '0555 9' } });
  fireEvent.click(await screen.findByRole('button', { name: /Keep them/ }));
  await waitFor(() => expect(sent(calls)).toHaveLength(2));
  expect(sent(calls)[1]!.body).toEqual({
    contacts: [{ name: 'Åse Bø', role: '', phone: '0555 9', email: '' }],
    version: 7,
  });
  expect(await screen.findByRole('button', { name: 'Add who else speaks for it' })).toBeTruthy();
});

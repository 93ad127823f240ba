import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import LetterSetup from './LetterSetup';

const setup = (own: unknown[] = []) => ({
  rule: { weeksBefore: 6, weeksBetween: 3, most: 3, version: 1, changedBy: '' },
  texts: [
    {
      text: 'REMINDER',
      what: 'Reminder of work that comes due',
      subject: 'Your timing belt or chain',
      body: 'Dear {owner}, {vehicles}',
      hasSubject: true,
      fields: ['owner', 'vehicles'],
      own,
    },
  ],
});

const server = (more: object = {}) => ({
  host: '',
  port: 587,
  security: 'STARTTLS',
  userName: '',
  hasPassword: false,
  sender: '',
  folder: '/data/outbox',
  securities: [{ code: 'STARTTLS', words: 'STARTTLS, the usual one' }],
  version: 1,
  changedBy: '',
  ...more,
});

function letterSetup(answers: Parameters<typeof serve>[0]) {
  const calls = serve({ ...manager, ...answers });
  show(<LetterSetup />, '/setup/letters', true);
  return calls;
}

it('keeps the rule, and a server whose password is only sent when it is typed', async () => {
  const calls = letterSetup({
    'GET /api/setup/letters': { body: setup() },
    'GET /api/setup/mail-server': { body: server({ host: 'mail.example', hasPassword: true }) },
    'PUT /api/setup/letters/rule': { body: setup() },
    'PUT /api/setup/mail-server': { body: server({ host: 'mail.example', version: 2 }) },
    'POST /api/setup/mail-server/test': problem('/host', 'mail.example is not reached'),
  });
  fireEvent.change(await screen.findByLabelText('First, before the act-by day'), {
    target: { value: '8' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Keep the rule' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(1));
  expect(sent(calls)[0]!.body).toMatchObject({ weeksBefore: 8, weeksBetween: 3, version: 1 });
  expect(screen.getByText('Password, one is on file')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('Try it: send a test to'), {
    target: { value: 'me@home.example' },
  });
  fireEvent.click(screen.getByRole('button', { name: 'Send a test' }));
  expect(await screen.findByText('mail.example is not reached')).toBeTruthy();
  fireEvent.change(screen.getByLabelText('User name'), { target: { value: 'desk' } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep the mail server' }));
  await waitFor(() => expect(sent(calls)).toHaveLength(3));
  expect(sent(calls)[2]!.body).toMatchObject({ host: 'mail.example', userName: 'desk' });
  expect(sent(calls)[2]!.body).not.toHaveProperty('password');
});

it('puts the workshop’s words in the place of the app’s, with what is wrong beside them', async () => {
  const calls = letterSetup({
    'GET /api/setup/letters': { body: setup() },
    'GET /api/setup/mail-server': { body: server() },
    'PUT /api/setup/letters/texts/REMINDER': problem('/body', '{vehicle} is no field here.'),
  });
  expect(await screen.findByText('the app’s own words')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Reminder of work that comes due' }));
  fireEvent.change(screen.getByLabelText('Words'), { target: { value: 'Hello {vehicle}' } });
  fireEvent.click(screen.getByRole('button', { name: 'Keep these words' }));
  expect(await screen.findByText('{vehicle} is no field here.')).toBeTruthy();
  expect(sent(calls)[0]!.body).toMatchObject({ language: '', version: 0, body: 'Hello {vehicle}' });
  fireEvent.click(screen.getByRole('button', { name: 'In another language' }));
  expect(screen.getByLabelText('Language')).toBeTruthy();
});

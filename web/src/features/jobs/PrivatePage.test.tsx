import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { manager } from '../../test/fixtures';
import { problem, sent, serve, show } from '../../test/render';
import { PrivatePage } from './PrivatePage';

const link = (ended?: string) => ({
  estimateNumber: 2,
  madeAt: '2026-11-25T09:00:00Z',
  madeBy: 'Ines Carrow',
  validUntil: '2026-12-20',
  ended,
});

const button = (name: string | RegExp) => screen.findByRole('button', { name });

const page = (offered: boolean, ...links: unknown[]) => ({
  body: { offered, ways: [], links },
});

function privatePage(answers: Parameters<typeof serve>[0]) {
  const calls = serve({ ...manager, ...answers });
  show(<PrivatePage jobId={6} />, '/', true);
  return calls;
}

it('offers nothing until Setup says where people outside reach it', async () => {
  privatePage({ 'GET /api/jobs/6/private-page': page(false) });
  expect(await screen.findByText(/once/)).toBeTruthy();
  expect(screen.getByRole('link', { name: 'Setup' }).getAttribute('href')).toBe('/setup/workshop');
  expect(screen.queryByRole('button')).toBeNull();
});

it('shows an address the once, and takes it back', async () => {
  const calls = privatePage({
    'GET /api/jobs/6/private-page': page(true, link('answered')),
    'POST /api/jobs/6/private-page': {
      body: {
        offered: true,
        address: 'https://garage.example/answer/abc',
        ways: [],
        links: [link()],
      },
    },
    'DELETE /api/jobs/6/private-page': page(true, link('taken back')),
  });
  expect(await screen.findByText(/answered\./)).toBeTruthy();
  fireEvent.click(await button('Make an address'));
  const field = await screen.findByLabelText<HTMLInputElement>('Address of the private page');
  expect(field.value).toBe('https://garage.example/answer/abc');
  expect(screen.getByText(/can be answered until 20 Dec 2026/)).toBeTruthy();
  fireEvent.click(await button('Take it back'));
  await waitFor(() => expect(sent(calls)).toHaveLength(2));
  expect(await screen.findByText(/taken back\./)).toBeTruthy();
  expect(screen.queryByLabelText('Address of the private page')).toBeNull();
});

it('says why none can be made', async () => {
  privatePage({
    'GET /api/jobs/6/private-page': page(true),
    'POST /api/jobs/6/private-page': problem('/', 'Make an estimate that is still valid first.'),
  });
  fireEvent.click(await button('Make an address'));
  expect(await screen.findByText(/still valid first/)).toBeTruthy();
});

it('writes to the owner with an address that nobody sees', async () => {
  const ways = [{ channel: 'EMAIL', words: 'by e-mail', place: 'a@home.example' }];
  const calls = privatePage({
    'GET /api/jobs/6/private-page': { body: { offered: true, ways, links: [] } },
    'POST /api/jobs/6/private-page/message': { body: { offered: true, ways, links: [] } },
  });
  fireEvent.click(await button('Send it by e-mail'));
  expect(await screen.findByText(/its address is made when it goes/)).toBeTruthy();
  expect(sent(calls)[0]!.body).toEqual({ channel: 'EMAIL' });
});

import { screen } from '@testing-library/react';
import { expect, it } from 'vitest';
import { serve, show } from '../../test/render';
import { LettersHint } from './LettersHint';
import { SilentFeeds } from './SilentFeeds';

const counts = (toPrint: number, failed: number) => ({
  'GET /api/outbox/counts': { body: { toPrint, failed, unsure: 0, waiting: 4 } },
});

it('says what of the letters calls for somebody', async () => {
  serve(counts(2, 1));
  show(<LettersHint />);
  const link = await screen.findByRole('link', {
    name: '2 letters to print, 1 message to look at',
  });
  expect(link.getAttribute('href')).toBe('/letters');
});

it('is silent where all goes by itself', async () => {
  serve(counts(0, 0));
  const { container } = show(<LettersHint />);
  await new Promise((r) => setTimeout(r, 50));
  expect(container.innerHTML).toBe('');
});

it('names the feed that has fallen silent', async () => {
  serve({
    'GET /api/silent-feeds': {
      body: [{ fleetId: 2, fleetName: 'Post vans', name: 'Units', since: '2026-11-20T08:00:00Z' }],
    },
  });
  show(<SilentFeeds />);
  expect((await screen.findByRole('status')).textContent).toMatch(/Units, Post vans: no readings/);
});

import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { serve, show } from '../../test/render';
import GettingReady from './GettingReady';

describe('getting ready', () => {
  it('says what is missing, what for, and leads to where it is done', async () => {
    serve({
      'GET /api/setup/ready': {
        body: {
          missing: [
            {
              code: 'bays',
              title: 'Bays',
              there: 'There is no bay to promise a place in.',
              next: 'Add a bay',
              path: '/setup/places',
              blocks: ['PROMISE', 'CARD'],
            },
          ],
          ready: ['DUE_LIST', 'ESTIMATE'],
        },
      },
    });
    show(<GettingReady />);
    await screen.findByText('This works already: a due list, an estimate.');
    screen.getByText('a promise, a job card');
    expect(screen.getByText('Add a bay').getAttribute('href')).toBe('/setup/places');
  });

  it('says so once everything is there', async () => {
    serve({ 'GET /api/setup/ready': { body: { missing: [], ready: ['DUE_LIST'] } } });
    show(<GettingReady />);
    await screen.findByText(/Everything is there/);
  });
});

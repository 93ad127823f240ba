import { fireEvent, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { serve, show } from '../../test/render';
import { WhatNext } from './WhatNext';

const question = {
  family: 'A',
  name: 'Alder 1.6',
  seed: 1,
  done: Array.from({ length: 8 }, (_, i) => `Step ${i + 1} done`),
  choices: [
    { code: 'a', title: 'Belt off' },
    { code: 'b', title: 'Start' },
  ],
};

const wrong = {
  right: false,
  broken: [{ law: 10, name: 'No start before it is proven', words: 'the belt is not proven' }],
  may: ['Belt off'],
};

describe('what comes next', () => {
  it('names the law an answer breaks, and counts the first answer only', async () => {
    const answers: Record<string, { body: unknown }> = {
      'GET /api/engines': { body: [{ code: 'A', name: 'Alder 1.6' }] },
      'GET /api/practice/A/next': { body: question },
      'POST /api/practice/next': { body: wrong },
    };
    serve(answers);
    show(<WhatNext family="" onFamily={() => undefined} />);
    fireEvent.click(await screen.findByRole('button', { name: 'Start' }));
    await screen.findByText('Not yet.');
    expect(screen.getByText(/law 10: no start before it is proven/)).toBeTruthy();
    answers['POST /api/practice/next'] = {
      body: { right: true, broken: [], may: ['Belt off'], why: 'It is slack: after this.' },
    };
    fireEvent.click(screen.getByRole('button', { name: 'Belt off' }));
    await screen.findByText('Right: it may be done now.');
    expect(screen.getByText('0 of 1 right, at the first answer')).toBeTruthy();
    expect(screen.getByText('2 steps before these')).toBeTruthy();
  });
});

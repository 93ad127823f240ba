import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { sent, serve, show } from '../../test/render';
import FromPaper from './FromPaper';

const step = (code: string, task: string, more: object = {}) => ({
  code,
  title: `Step ${code}`,
  task,
  settled: false,
  results: [],
  options: [],
  points: [],
  notes: [],
  ...more,
});

const card = (phases: object[], started: object | undefined = { by: 'Hedra' }) => ({
  jobId: 7,
  registration: 'A 1',
  seq: 12,
  started,
  phases,
});

const open = (view: object, more: Record<string, { status?: number; body: unknown }> = {}) => {
  const calls = serve({ 'GET /api/jobs/7/card': { body: view }, ...more });
  show(
    <Routes>
      <Route path="/jobs/:id/paper" element={<FromPaper />} />
      <Route path="/jobs/:id/card" element={<p>the card</p>} />
    </Routes>,
    '/jobs/7/paper',
  );
  return calls;
};

describe('a card typed in from paper', () => {
  it('sends what was written, in the order of the card, and nothing for what was not', async () => {
    const calls = open(
      card([
        {
          code: 'B1',
          title: 'One',
          steps: [step('a', 'TICK'), step('b', 'TICK', { settled: true })],
        },
        {
          code: 'B2',
          title: 'Two',
          steps: [
            step('c', 'MEASURE', { measure: { unit: 'mm' } }),
            step('d', 'TURN'),
            step('e', 'CONFIRM'),
          ],
        },
      ]),
      { 'POST /api/jobs/7/card/paper': { body: card([]) } },
    );
    fireEvent.click(await screen.findByText('all plain boxes ticked'));
    fireEvent.change(screen.getByLabelText('Step c: figure'), { target: { value: 'much' } });
    expect(screen.getByText('This cannot be read as a figure.')).toBeTruthy();
    fireEvent.change(screen.getByLabelText('Step c: figure'), { target: { value: '5,5' } });
    fireEvent.click(screen.getByLabelText('Step d: done, no stop'));
    fireEvent.change(screen.getByLabelText('Who worked by the card'), {
      target: { value: 'Perran' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Enter 3 answers' }));
    await screen.findByText('the card');
    const body = sent(calls)[0]?.body as {
      workedBy: string;
      entries: { type: string; step: string }[];
    };
    expect(body.workedBy).toBe('Perran');
    expect(body.entries.map((e) => `${e.type} ${e.step}`)).toEqual([
      'TICK a',
      'MEASURE c',
      'TURN d',
    ]);
  });

  it('keeps what was typed where the card does not take it', async () => {
    open(card([{ code: 'B1', title: 'One', steps: [step('a', 'TICK')] }]), {
      'POST /api/jobs/7/card/paper': {
        status: 422,
        body: {
          type: '/problems/gate-shut',
          title: 'x',
          status: 422,
          detail: 'Gate: not settled yet.',
          errors: [],
        },
      },
    });
    fireEvent.click(await screen.findByLabelText('Step a: done'));
    fireEvent.change(screen.getByLabelText('Who worked by the card'), {
      target: { value: 'Perran' },
    });
    fireEvent.click(screen.getByRole('button', { name: 'Enter 1 answer' }));
    await screen.findByText('Gate: not settled yet.');
    await waitFor(() =>
      expect((screen.getByLabelText('Step a: done') as HTMLInputElement).checked).toBe(true),
    );
  });

  it('asks for the check-in first', async () => {
    open({
      ...card([{ code: 'B1', title: 'One', steps: [step('a', 'TICK')] }]),
      started: undefined,
    });
    await screen.findByText('Check it in');
    expect(screen.queryByRole('button')).toBeNull();
  });
});

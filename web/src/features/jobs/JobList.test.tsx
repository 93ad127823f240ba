import { screen, waitFor } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { manager } from '../../test/fixtures';
import { serve, show } from '../../test/render';
import JobList from './JobList';

const job = (
  id: number,
  stage: Schemas['JobRow']['stage'],
  start?: string,
): Partial<Schemas['JobRow']> => ({
  id,
  vehicleId: id,
  registration: `SKR ${id}`,
  makeModel: 'Calder Dunlin 1.6',
  ownerName: 'Tamsin Orde',
  stage,
  booking: start
    ? ({
        start,
        end: start,
        technician: 'Hedra Voss',
        bay: 'Bay 1',
      } as Schemas['JobRow']['booking'])
    : undefined,
});

describe('the list of jobs', () => {
  it('reads the cards at the bench, of today and of tomorrow ahead, and no other', async () => {
    const technician = { ...manager['GET /api/me'].body, role: 'TECHNICIAN', name: 'Hedra Voss' };
    const calls = serve({
      'GET /api/me': { body: technician },
      'GET /api/jobs': {
        body: [
          job(1, 'UNDER_WAY', '2026-11-20T08:00:00'),
          job(2, 'PLANNED', '2026-11-25T08:00:00'),
          job(3, 'PLANNED', '2026-11-26T08:00:00'),
          job(4, 'PLANNED', '2026-11-27T08:00:00'),
          job(5, 'DRAFT'),
          { ...job(6, 'DONE', '2026-11-24T08:00:00'), completedOn: '2026-11-24' },
        ],
      },
    });
    show(<JobList />, '/jobs', true);
    await screen.findByText('SKR 4');
    const read = () => calls.map((c) => c.path).filter((p) => p.endsWith('/card'));
    await waitFor(() =>
      expect(new Set(read())).toEqual(
        new Set(['/api/jobs/1/card', '/api/jobs/2/card', '/api/jobs/3/card']),
      ),
    );
  });
});

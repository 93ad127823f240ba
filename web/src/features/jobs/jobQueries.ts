import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';
import { A_DAY_AND_TOMORROW } from '../../shared/atHand';
import { useBoardChange } from '../board/boardQueries';

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: () => data(api.GET('/api/jobs')),
  // the way to the cards at hand without a network
  gcTime: A_DAY_AND_TOMORROW,
});

export const jobQuery = (id: number) =>
  queryOptions({
    queryKey: ['job', id],
    queryFn: () => data(api.GET('/api/jobs/{id}', { params: { path: { id } } })),
  });

export const weekQuery = (from: string) =>
  queryOptions({
    queryKey: ['week', from],
    queryFn: () => data(api.GET('/api/jobs/week', { params: { query: { from } } })),
    placeholderData: keepPreviousData,
  });

/** A change to a job; its answer is the job as it is now. */
function useJobChange<V>(id: number, send: (values: V) => Promise<Schemas['JobView']>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (job) => {
      client.setQueryData(jobQuery(id).queryKey, job);
      await Promise.all([
        ...['week', 'jobs', 'desk', 'vehicle'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
        client.invalidateQueries({ queryKey: estimatesQuery(id).queryKey }),
      ]);
    },
  });
}

/** Builds the job anew; fields that are left out stay as they are. */
export const useBuild = (job: Schemas['JobView']) =>
  useJobChange(job.id, (change: Partial<Schemas['ScopeIn']>) =>
    data(
      api.PUT('/api/jobs/{id}/scope', {
        params: { path: { id: job.id } },
        body: { ...scopeOf(job), ...change },
      }),
    ),
  );

export const useInspectionTime = (job: Schemas['JobView']) =>
  useJobChange(job.id, (minutes: number) =>
    data(
      api.PUT('/api/jobs/{id}/inspection', {
        params: { path: { id: job.id } },
        body: { minutes, version: job.version },
      }),
    ),
  );

/** The job's scope as the server has it, to be sent back with a change. */
export function scopeOf(job: Schemas['JobView']): Schemas['ScopeIn'] {
  const items = job.lines.filter((l) => l.kind === 'ITEM');
  return {
    purpose: job.build.purpose,
    school: job.build.ownSchool ? job.build.school : undefined,
    seals: job.build.ownSeals ? job.build.seals : undefined,
    keptUntil: job.build.keptUntil,
    decisions: Object.fromEntries(items.flatMap((l) => (l.decision ? [[l.code, l.decision]] : []))),
    parts: Object.fromEntries(
      items.flatMap((l) =>
        l.part && l.offers.some((o) => o.number === l.part && o.grade !== 'ORIGINAL')
          ? [[l.code, l.part]]
          : [],
      ),
    ),
    ownerSupplied: items.filter((l) => l.ownerSupplied).map((l) => l.code),
    variants: Object.fromEntries(
      job.build.variants.flatMap((v) => (v.settled ? [[v.code, v.settled]] : [])),
    ),
    toolHireMinor: job.build.toolHireMinor,
    version: job.version,
  };
}

export const useNewestBook = (id: number) =>
  useJobChange(id, (version: number) =>
    data(api.POST('/api/jobs/{id}/newest-book', { params: { path: { id }, query: { version } } })),
  );

export const useActual = (id: number) =>
  useJobChange(id, (body: Schemas['ActualIn']) =>
    data(api.PUT('/api/jobs/{id}/actual', { params: { path: { id } }, body })),
  );

export const estimatesQuery = (id: number) =>
  queryOptions({
    queryKey: ['job', id, 'estimates'],
    queryFn: () => data(api.GET('/api/jobs/{id}/estimates', { params: { path: { id } } })),
  });

function useEstimateChange<V>(id: number, send: (values: V) => Promise<Schemas['EstimatesView']>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (estimates) => {
      client.setQueryData(estimatesQuery(id).queryKey, estimates);
      await Promise.all([
        client.invalidateQueries({ queryKey: jobQuery(id).queryKey, exact: true }),
        client.invalidateQueries({ queryKey: ['vehicle'] }),
      ]);
    },
  });
}

export const useMakeEstimate = (id: number) =>
  useEstimateChange(id, () =>
    data(api.POST('/api/jobs/{id}/estimates', { params: { path: { id } } })),
  );

export const useConsent = (id: number) =>
  useEstimateChange(id, ({ number, ...body }: Schemas['SaidIn'] & { number: number }) =>
    data(
      api.POST('/api/jobs/{id}/estimates/{number}/consents', {
        params: { path: { id, number } },
        body,
      }),
    ),
  );

export const privatePageQuery = (id: number) =>
  queryOptions({
    queryKey: ['private-page', id],
    queryFn: () => data(api.GET('/api/jobs/{id}/private-page', { params: { path: { id } } })),
  });

function usePrivatePage<V = void>(
  id: number,
  send: (values: V) => Promise<Schemas['PrivatePageView']>,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (page) => {
      client.setQueryData(privatePageQuery(id).queryKey, { ...page, address: undefined });
      void client.invalidateQueries({ queryKey: ['letters'] });
    },
  });
}

export const useMakePrivatePage = (id: number) =>
  usePrivatePage(id, () =>
    data(api.POST('/api/jobs/{id}/private-page', { params: { path: { id } } })),
  );

export const useRevokePrivatePage = (id: number) =>
  usePrivatePage(id, () =>
    data(api.DELETE('/api/jobs/{id}/private-page', { params: { path: { id } } })),
  );

export const useWritePrivatePage = (id: number) =>
  usePrivatePage(id, (channel: Schemas['SendPageIn']['channel']) =>
    data(
      api.POST('/api/jobs/{id}/private-page/message', {
        params: { path: { id } },
        body: { channel },
      }),
    ),
  );

export const useBook = (id: number) =>
  useBoardChange((body: Schemas['BookingRequest']) =>
    data(api.PUT('/api/jobs/{id}/booking', { params: { path: { id } }, body })),
  );

export const useUnbook = (id: number) =>
  useBoardChange((version: number) =>
    data(api.DELETE('/api/jobs/{id}/booking', { params: { path: { id }, query: { version } } })),
  );

export const useCancel = (id: number) =>
  useJobChange(id, (version: number) =>
    data(api.DELETE('/api/jobs/{id}', { params: { path: { id }, query: { version } } })),
  );

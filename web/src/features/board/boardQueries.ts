import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Board = Schemas['BoardView'];
export type Block = Schemas['BlockView'];
export type Waiting = Schemas['WaitingView'];
export type BoardJob = Schemas['BoardJobView'];
export type Plan = Schemas['PlanView'];

export const boardQuery = (from?: string, days = 14) =>
  queryOptions({
    queryKey: ['board', from ?? 'today', days],
    queryFn: () => data(api.GET('/api/board', { params: { query: { from, days } } })),
    placeholderData: keepPreviousData,
    // somebody else may move a job; a minute old is old enough
    refetchInterval: 60_000,
  });

export interface Spot {
  technicianId?: number;
  bayId?: number;
  day: string;
  time: string;
}

export const askQuery = (jobId: number, spot?: Spot) =>
  queryOptions({
    queryKey: ['board', 'ask', jobId, spot],
    queryFn: () =>
      data(
        api.GET('/api/board/jobs/{id}/ask', {
          params: { path: { id: jobId }, query: spot! },
        }),
      ),
    enabled: spot !== undefined && spot.day !== '',
    staleTime: 5_000,
    retry: false,
  });

export const boardJobQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['board', 'job', jobId],
    queryFn: () => data(api.GET('/api/board/jobs/{id}', { params: { path: { id: jobId } } })),
  });

export const offersQuery = (jobId: number) =>
  queryOptions({
    queryKey: ['board', 'offers', jobId],
    queryFn: () =>
      data(api.GET('/api/board/jobs/{id}/offers', { params: { path: { id: jobId } } })),
  });

export const planQuery = queryOptions({
  queryKey: ['board', 'plan'],
  queryFn: async () => (await data(api.GET('/api/board/plan'))).plan ?? null,
  refetchInterval: (query) => (query.state.data?.phase === 'RUNNING' ? 400 : false),
});

export const feedsQuery = queryOptions({
  queryKey: ['feeds'],
  queryFn: () => data(api.GET('/api/board/feeds')),
});

/** A change of the board; everything that shows a job's place is asked anew. */
export function useBoardChange<V, R>(send: (values: V) => Promise<R>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: () =>
      Promise.all(
        ['board', 'job', 'jobs', 'week', 'desk', 'vehicle', 'stores'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
      ),
  });
}

export const usePlace = () =>
  useBoardChange(({ jobId, ...body }: Schemas['PlaceIn'] & { jobId: number }) =>
    data(api.PUT('/api/board/jobs/{id}/place', { params: { path: { id: jobId } }, body })),
  );

export const usePromise = (jobId: number) =>
  useBoardChange((body: Schemas['PromiseIn']) =>
    data(api.PUT('/api/board/jobs/{id}/promise', { params: { path: { id: jobId } }, body })),
  );

export const useTakeOff = (jobId: number) =>
  useBoardChange((version: number) =>
    data(
      api.DELETE('/api/jobs/{id}/booking', {
        params: { path: { id: jobId }, query: { version } },
      }),
    ),
  );

export const useNoShow = (jobId: number) =>
  useBoardChange((body: Schemas['NoShowIn']) =>
    data(api.POST('/api/board/jobs/{id}/no-show', { params: { path: { id: jobId } }, body })),
  );

export const useWishes = (jobId: number) =>
  useBoardChange((body: Schemas['WishesIn']) =>
    data(api.PUT('/api/board/jobs/{id}/wishes', { params: { path: { id: jobId } }, body })),
  );

export const useUndo = () => useBoardChange(() => data(api.POST('/api/board/undo')));

export const useBeginPlan = () =>
  useBoardChange((body: Schemas['PlanIn']) => data(api.POST('/api/board/plan', { body })));

export const useStopPlan = () =>
  useBoardChange((id: number) =>
    data(api.POST('/api/board/plan/{id}/stop', { params: { path: { id } } })),
  );

export const useAcceptPlan = () =>
  useBoardChange(({ id, jobIds }: { id: number; jobIds: number[] }) =>
    data(api.POST('/api/board/plan/{id}/accept', { params: { path: { id } }, body: { jobIds } })),
  );

export const useAskWhatIf = () =>
  useMutation({
    mutationFn: (body: Schemas['AbsenceIn']) => data(api.POST('/api/board/what-if', { body })),
  });

export const useAcceptWhatIf = () =>
  useBoardChange((body: Schemas['WhatIfAcceptIn']) =>
    data(api.POST('/api/board/what-if/accept', { body })),
  );

export const useWithdraw = () =>
  useBoardChange((id: number) =>
    data(api.DELETE('/api/board/absences/{id}', { params: { path: { id } } })),
  );

export const useFleetRule = () =>
  useBoardChange(({ id, ...body }: Schemas['FleetRuleIn'] & { id: number }) =>
    data(api.PUT('/api/board/fleets/{id}', { params: { path: { id } }, body })),
  );

function useFeeds<V, R>(send: (values: V) => Promise<R>, feedsOf: (r: R) => Schemas['FeedView'][]) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (r) => client.setQueryData(feedsQuery.queryKey, feedsOf(r)),
  });
}

export const useMakeFeed = () =>
  useFeeds(
    (fleetId?: number) => data(api.POST('/api/board/feeds', { body: { fleetId } })),
    (r) => r.feeds,
  );

export const useRevokeFeed = () =>
  useFeeds(
    (id: number) => data(api.DELETE('/api/board/feeds/{id}', { params: { path: { id } } })),
    (feeds) => feeds,
  );

/** "Mon 30 Nov, 13:00 to Tue 1 Dec, 15:00"; the day once where it ends the same day. */
export function spanWords(
  place: { start: string; end: string },
  day: (iso: string) => string,
  time: (iso: string) => string,
): string {
  const sameDay = place.start.slice(0, 10) === place.end.slice(0, 10);
  return `${day(place.start)}, ${time(place.start)} to ${sameDay ? '' : `${day(place.end)}, `}${time(place.end)}`;
}

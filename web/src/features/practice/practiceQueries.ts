import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Round = Schemas['RoundView'];
export type Answers = Schemas['RoundAnswers'];

/** The round a seed stands for; the same seed gives the same round. */
export const roundQuery = (family: string, seed: number) =>
  queryOptions({
    queryKey: ['practice', family, seed],
    queryFn: () =>
      data(api.GET('/api/practice/{family}', { params: { path: { family }, query: { seed } } })),
    staleTime: Infinity,
  });

export type Question = Schemas['NextQuestion'];

/** What comes next on a family's card; the same seed asks the same. */
export const nextQuery = (family: string, seed: number) =>
  queryOptions({
    queryKey: ['practice', 'next', family, seed],
    queryFn: () =>
      data(
        api.GET('/api/practice/{family}/next', { params: { path: { family }, query: { seed } } }),
      ),
    staleTime: Infinity,
    retry: false,
  });

export const courseQuery = queryOptions({
  queryKey: ['practice', 'course'],
  queryFn: () => data(api.GET('/api/practice-course')),
});

/** Keeps own scores or does not, or forgets them. */
export function useCourseChange() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (what: Schemas['KeepIn'] | 'forget') =>
      data(
        what === 'forget'
          ? api.DELETE('/api/practice-course')
          : api.PUT('/api/practice-course', { body: what }),
      ),
    onSuccess: (course) => client.setQueryData(courseQuery.queryKey, course),
  });
}

/** An answer that may have been kept changes the course. */
function useAnswer<B, A>(send: (body: B) => Promise<A>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: () => client.invalidateQueries({ queryKey: courseQuery.queryKey }),
  });
}

export const useNextAnswer = () =>
  useAnswer((body: Schemas['NextAnswer']) => data(api.POST('/api/practice/next', { body })));

export const useMarks = () =>
  useAnswer((body: Answers) => data(api.POST('/api/practice/marks', { body })));

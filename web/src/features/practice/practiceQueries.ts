import { queryOptions, useMutation } from '@tanstack/react-query';
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

export const useNextAnswer = () =>
  useMutation({
    mutationFn: (body: Schemas['NextAnswer']) => data(api.POST('/api/practice/next', { body })),
  });

export const useMarks = () =>
  useMutation({
    mutationFn: (body: Answers) => data(api.POST('/api/practice/marks', { body })),
  });

import { useQueryClient } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { useEffect } from 'react';
import type { Schemas } from '../../api/client';
import { cardQuery, pictureAt } from '../card/cardQueries';

type Row = Schemas['JobRow'];

/** Reads the cards at the bench and those of today and tomorrow ahead, with their pictures, to open without a network. */
export function useCardsAtHand(jobs: Row[] | undefined, today: string) {
  const client = useQueryClient();
  useEffect(() => {
    if (!jobs) return;
    const tomorrow = dayjs(today).add(1, 'day').format('YYYY-MM-DD');
    const soon = jobs.filter(
      (j) =>
        j.stage === 'UNDER_WAY' ||
        (j.stage === 'PLANNED' && j.booking && j.booking.start.slice(0, 10) <= tomorrow),
    );
    // the page itself too; where that fails it is read when it is opened
    import('../card/JobCard').catch(() => undefined);
    soon.forEach(async (j) => {
      await client.prefetchQuery({ ...cardQuery(j.id), staleTime: 60_000 });
      if (!navigator.serviceWorker?.controller) return;
      // what is read once is kept with the page
      const photos = client.getQueryData(cardQuery(j.id).queryKey)?.photos ?? [];
      photos.forEach((p) => void fetch(pictureAt(j.id, p.id)).catch(() => undefined));
    });
  }, [client, jobs, today]);
}

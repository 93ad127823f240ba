import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { formatTime } from '../../shared/format';
import { useMe } from '../../shared/me';
import { meQuery } from '../../shared/queries';
import { cardQuery, send } from './cardQueries';
import { everythingKept, noAnswer, Outbox, type Kept } from './outbox';

/** How often it is looked through, ms. */
const LOOK_AGAIN = 5_000;

/**
 * On every page but a card: since when the server does not answer, and what waits on this tablet for any card. It is sent
 * from here too, so that nobody has to go back to the card it was entered on.
 */
export function KeptElsewhere() {
  const me = useMe();
  const client = useQueryClient();
  const { error, dataUpdatedAt, fetchStatus } = useQuery({
    ...meQuery,
    refetchInterval: (q) => (q.state.error ? LOOK_AGAIN : false),
  });
  const [kept, setKept] = useState<Kept[]>([]);
  const bench = me.bench;
  useEffect(() => {
    if (!bench) return;
    let gone = false;
    const who = () => client.getQueryData(meQuery.queryKey)?.name ?? '';
    const look = async () => {
      const all = await everythingKept();
      if (gone) return;
      setKept(all);
      const jobs = new Set(all.filter((k) => !k.refused && k.by === who()).map((k) => k.job));
      for (const job of jobs) {
        await new Outbox(job, who, send, {
          taken: (next) => client.setQueryData(cardQuery(next.jobId).queryKey, next),
          changed: () => undefined,
        }).flush();
      }
      if (jobs.size > 0 && !gone) setKept(await everythingKept());
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_AGAIN);
    return () => {
      gone = true;
      clearInterval(timer);
    };
  }, [client, bench]);
  const lost = fetchStatus === 'paused' || (error !== null && noAnswer(error));
  if (!lost && kept.length === 0) return null;
  const jobs = [...new Set(kept.map((k) => k.job))];
  return (
    <div className="no-answer" role="status">
      {lost && (
        <>
          The server has not answered since {formatTime(new Date(dataUpdatedAt).toISOString())};
          this is what was read until then.{' '}
        </>
      )}
      {kept.length > 0 && (
        <>
          On this tablet {kept.length === 1 ? 'one entry waits' : `${kept.length} entries wait`}:{' '}
          {jobs.map((job) => (
            <Link key={job} className="action" to={`/jobs/${job}/card`}>
              job {job}
              {kept.some((k) => k.job === job && k.refused) && ', not taken'}
            </Link>
          ))}
        </>
      )}
    </div>
  );
}

import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../../api/client';
import { formatTime, formatWeekday } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';

type Line = Schemas['ToTellView'];

const WAYS = [
  ['PHONE', 'told by phone'],
  ['MESSAGE', 'by a message of mine'],
  ['IN_PERSON', 'in person'],
] as const;

const toTellQuery = queryOptions({
  queryKey: ['board', 'told'],
  queryFn: () => data(api.GET('/api/told')),
  refetchInterval: 60_000,
});

const moment = (iso: string) => `${formatWeekday(iso.slice(0, 10))} ${formatTime(iso)}`;

/** Owners who count on a time that no longer stands, above everything else on the Desk. */
export function ToTell() {
  const client = useQueryClient();
  const { data: lines } = useQuery(toTellQuery);
  const tell = useMutation({
    mutationFn: ({ line, ...told }: { line: Line } & Pick<Schemas['ToldIn'], 'how' | 'channel'>) =>
      data(
        api.POST('/api/told/{id}', {
          params: { path: { id: line.id } },
          body: { ...told, version: line.version },
        }),
      ),
    onSuccess: (left) => {
      client.setQueryData(toTellQuery.queryKey, left);
      void client.invalidateQueries({ queryKey: ['vehicle'] });
    },
    onError: () => void client.invalidateQueries({ queryKey: toTellQuery.queryKey }),
  });
  if (!lines || lines.length === 0) return null;
  return (
    <section className="to-tell" aria-label="Owners to be told">
      <h2>{lines.length === 1 ? '1 owner to be told' : `${lines.length} owners to be told`}</h2>
      <ProblemNote error={tell.error} />
      <ul className="plain">
        {lines.map((l) => (
          <li key={l.id}>
            <Link to={`/vehicles/${l.vehicleId}`} className="registration">
              {l.registration}
            </Link>{' '}
            {l.ownerName}, <a href={`tel:${l.ownerPhone.replaceAll(' ', '')}`}>{l.ownerPhone}</a>:
            {l.promised ? (
              <>
                {l.what === 'READY' ? 'ready' : 'promised'} {moment(l.promised)},{' '}
                <b>{l.movedTo ? `now ${moment(l.movedTo)}` : 'has no time any more'}</b>
              </>
            ) : (
              <Link to={`/jobs/${l.jobId}`}>
                <b>{l.words}</b>
              </Link>
            )}{' '}
            <span className="hint">{l.by}</span>{' '}
            {WAYS.map(([how, words]) => (
              <button
                key={how}
                type="button"
                className="action"
                aria-label={`${l.registration}: ${words}`}
                disabled={tell.isPending}
                onClick={() => tell.mutate({ line: l, how })}
              >
                {words}
              </button>
            ))}
            {l.ways.map((w) => (
              <button
                key={w.channel}
                type="button"
                className="action"
                aria-label={`${l.registration}: write ${w.words}`}
                disabled={tell.isPending}
                onClick={() => tell.mutate({ line: l, how: 'MESSAGE', channel: w.channel })}
              >
                write {w.words}
              </button>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, data, type Schemas } from '../../api/client';
import { formatDate } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { aftercareQuery, storyQuery } from './dossierQueries';

type View = Schemas['DossierView'];

/** What jobs left to be looked at again, and what was found beside them. */
export function Aftercare({ v, bench }: { v: View; bench: boolean }) {
  const { data: left, error, refetch } = useQuery(aftercareQuery(v.id));
  const open = [
    ...(left?.rechecks.filter((r) => !r.done) ?? []).map((r) => ({
      key: `r${r.id}`,
      path: 'rechecks' as const,
      id: r.id,
      version: r.version,
      words: r.what,
      when: `recheck due ${formatDate(r.due)}`,
      urgent: false,
    })),
    ...(left?.followUps.filter((f) => !f.closed) ?? []).map((f) => ({
      key: `f${f.id}`,
      path: 'follow-ups' as const,
      id: f.id,
      version: f.version,
      words: f.what,
      when: `found ${formatDate(f.notedOn)}, ${f.notedBy}`,
      urgent: f.urgent,
    })),
  ];
  if (!error && open.length === 0) return null;
  return (
    <section>
      <h3>To look at again</h3>
      <ProblemNote error={error} retry={() => refetch()} />
      <ul className="plain">
        {open.map((o) => (
          <li key={o.key}>
            {o.urgent && <b>Urgent: </b>}
            {o.words}
            <span className="second">{o.when}</span>
            {bench && <Settle vehicle={v.id} {...o} />}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Settle({
  vehicle,
  path,
  id,
  version,
  words,
}: {
  vehicle: number;
  path: 'rechecks' | 'follow-ups';
  id: number;
  version: number;
  words: string;
}) {
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [result, setResult] = useState('');
  const settle = useMutation({
    mutationFn: () => {
      const body = { result, version };
      return path === 'rechecks'
        ? data(
            api.POST('/api/vehicles/{id}/aftercare/rechecks/{recheck}/done', {
              params: { path: { id: vehicle, recheck: id } },
              body,
            }),
          )
        : data(
            api.POST('/api/vehicles/{id}/aftercare/follow-ups/{followUp}/settled', {
              params: { path: { id: vehicle, followUp: id } },
              body,
            }),
          );
    },
    onSuccess: () => client.invalidateQueries(),
  });
  if (!open) {
    return (
      <button className="link" onClick={() => setOpen(true)}>
        Settle it
      </button>
    );
  }
  return (
    <form
      className="inline-form"
      onSubmit={(e) => {
        e.preventDefault();
        settle.mutate();
      }}
    >
      <Input
        aria-label={`What came of it: ${words}`}
        placeholder="What came of it"
        autoFocus
        maxLength={400}
        value={result}
        status={settle.error ? 'error' : ''}
        onChange={(e) => setResult(e.target.value)}
      />
      <button className="action" type="submit" disabled={settle.isPending}>
        Note it
      </button>
      <button className="link" type="button" data-leave="" onClick={() => setOpen(false)}>
        Leave it open
      </button>
      <FieldNote error={settle.error} at="/result" />
      <ProblemNote error={settle.error} beside={['/result']} />
    </form>
  );
}

/** What has happened to the timing drive, as sentences, each with what proves it. */
export function Story({ v, linked }: { v: View; linked: boolean }) {
  const { data: story, error, refetch } = useQuery(storyQuery(v.id));
  return (
    <section>
      <h3>Story</h3>
      <ProblemNote error={error} retry={() => refetch()} />
      <ol className="story">
        {story?.map((c, i) => (
          <li key={i}>
            <span className="when">{formatDate(c.on)}</span>
            <span>
              {c.sentence}
              <span className="second">
                {c.jobId !== undefined && linked ? (
                  <>
                    <a href={`/api/jobs/${c.jobId}/record.pdf`} target="_blank" rel="noreferrer">
                      {c.proof}
                    </a>
                    , <Link to={`/jobs/${c.jobId}`}>job {c.jobId}</Link>
                  </>
                ) : (
                  c.proof
                )}
                {c.by && `, ${c.by}`}
              </span>
            </span>
          </li>
        ))}
      </ol>
    </section>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { readyQuery } from './setupQueries';

const FOR: { code: Schemas['Ready']['ready'][number]; words: string }[] = [
  { code: 'DUE_LIST', words: 'a due list' },
  { code: 'ESTIMATE', words: 'an estimate' },
  { code: 'PROMISE', words: 'a promise' },
  { code: 'CARD', words: 'a job card' },
];

const words = (codes: Schemas['Ready']['ready']) =>
  FOR.filter((f) => codes.includes(f.code))
    .map((f) => f.words)
    .join(', ');

/** What a new workshop still lacks, each with the place where it is done. */
export default function GettingReady() {
  const { data: ready, error, refetch } = useQuery(readyQuery);
  return (
    <section>
      <ProblemNote error={error} retry={() => refetch()} />
      {ready?.missing.length === 0 && (
        <p className="done" role="status">
          Everything is there: a due list, estimates, promises and job cards work.
        </p>
      )}
      {ready && ready.missing.length > 0 && (
        <>
          <p>
            {ready.ready.length > 0
              ? `This works already: ${words(ready.ready)}.`
              : 'Nothing works yet; begin at the top, in any order you like.'}
          </p>
          <table className="plain people">
            <thead>
              <tr>
                <th>Missing</th>
                <th>What is there</th>
                <th>Needed for</th>
                <th>Next</th>
              </tr>
            </thead>
            <tbody>
              {ready.missing.map((m) => (
                <tr key={m.code}>
                  <td>{m.title}</td>
                  <td>{m.there}</td>
                  <td>{words(m.blocks) || 'better figures'}</td>
                  <td>
                    <Link className="link" to={m.path}>
                      {m.next}
                    </Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}

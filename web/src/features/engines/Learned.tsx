import { useQuery } from '@tanstack/react-query';
import { ProblemNote } from '../../shared/ProblemNote';
import { learnedQuery } from './engineQueries';

/** What signed jobs say of the book's times, piece by piece. */
export function Learned({ code }: { code: string }) {
  const { data: steps, error, refetch } = useQuery(learnedQuery(code));
  if (!steps) return error ? <ProblemNote error={error} retry={() => refetch()} /> : null;
  const timed = steps.filter((s) => s.jobs > 0);
  if (timed.length === 0) {
    return (
      <p className="hint">
        No signed job of this family has taken its time yet. Each that is worked at the bench says
        how long each piece took here.
      </p>
    );
  }
  return (
    <>
      <table className="plain learned">
        <thead>
          <tr>
            <th>Piece of work</th>
            <th className="num">Book</th>
            <th className="num">Here</th>
            <th className="num">From</th>
          </tr>
        </thead>
        <tbody>
          {timed.map((s) => (
            <tr key={s.code}>
              <td>{s.title}</td>
              <td className="num">{s.bookMinutes} min</td>
              <td className="num">
                {s.expectedMinutes} min
                <span className="second">
                  {s.factor >= 1 ? '+' : '−'}
                  {Math.round(Math.abs(s.factor - 1) * 100)} %
                </span>
              </td>
              <td className="num">
                {s.jobs} {s.jobs === 1 ? 'job' : 'jobs'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="hint">
        The book counts as three jobs, so that one slow job does not decide. It stays as it is until
        somebody changes it.
      </p>
    </>
  );
}

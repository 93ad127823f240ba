import { useQuery } from '@tanstack/react-query';
import { Popconfirm, Switch } from 'antd';
import type { Schemas } from '../../api/client';
import { ProblemNote } from '../../shared/ProblemNote';
import { courseQuery, useCourseChange } from './practiceQueries';

type View = Schemas['CourseView'];
type Sort = Schemas['SortView'];

/** How far one has come, what to practise next, and for a manager who is ready for which engines. */
export function Course({ onGo }: { onGo: (family: string, whatNext: boolean) => void }) {
  const { data: course, error, refetch } = useQuery(courseQuery);
  const change = useCourseChange();
  if (!course) return error ? <ProblemNote error={error} retry={() => refetch()} /> : null;
  const some = course.sorts.some((s) => s.answers > 0);
  return (
    <section className="course" aria-label="Your course">
      <div className="course-head">
        <h2>Your course</h2>
        <label>
          <Switch
            size="small"
            checked={course.keeps}
            loading={change.isPending}
            onChange={(keeps) => change.mutate({ keeps })}
          />{' '}
          Keep my scores
        </label>
        {some && (
          <Popconfirm
            title="Forget all your scores?"
            okText="Forget them"
            cancelText="Keep them"
            onConfirm={() => change.mutate('forget')}
          >
            <button className="action quiet">Forget them</button>
          </Popconfirm>
        )}
      </div>
      <ProblemNote error={change.error} />
      {!course.keeps && !some ? (
        <p className="hint">
          Nothing is kept unless you wish it. Kept scores say what to practise next, and the manager
          sees for which engines you are ready.
        </p>
      ) : (
        <>
          {course.next ? (
            <p>
              Next: <b>{course.next.skillWords.toLowerCase()}</b> on {course.next.familyName} (
              {course.next.sort}).{' '}
              <button
                className="action"
                onClick={() => onGo(course.next!.family, course.next!.skill === 'WHAT_NEXT')}
              >
                Go to it
              </button>
            </p>
          ) : (
            course.sorts.length > 0 && <p>Ready for every sort of engine on file.</p>
          )}
          <details>
            <summary>How far you are, by sort of engine</summary>
            <Sorts course={course} sorts={course.sorts} />
          </details>
        </>
      )}
      {course.people && course.people.length > 0 && <People course={course} />}
    </section>
  );
}

function Sorts({ course, sorts }: { course: View; sorts: Sort[] }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>Engines</th>
          <th className="num">Answers</th>
          <th className="num">Right</th>
          <th>
            Ready, from {course.least} answers and {course.readyPercent} % on
          </th>
        </tr>
      </thead>
      <tbody>
        {sorts.map((s) => (
          <tr key={s.sort}>
            <td>{s.sort}</td>
            <td className="num">{s.answers}</td>
            <td className="num">{s.percent === undefined ? '' : `${s.percent} %`}</td>
            <td>{s.words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Who is ready for what, of those who keep their scores. */
function People({ course }: { course: View }) {
  return (
    <details>
      <summary>Who is ready for which engines</summary>
      <table className="plain">
        <thead>
          <tr>
            <th>Name</th>
            {course.sorts.map((s) => (
              <th key={s.sort}>{s.sort}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {course.people!.map((p) => (
            <tr key={p.name}>
              <td>{p.name}</td>
              {p.sorts.map((s) => (
                <td key={s.sort}>
                  {s.ready ? <b>{s.words}</b> : s.words}
                  {s.percent !== undefined && (
                    <span className="second">
                      {s.percent} % of {s.answers}
                    </span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="hint">
        Of practice alone, and of those who keep their scores: it says nothing of anybody’s hands.
      </p>
    </details>
  );
}

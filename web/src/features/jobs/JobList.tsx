import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatDate, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { useCardsAtHand } from './cardsAtHand';
import { jobsQuery } from './jobQueries';

type Row = Schemas['JobRow'];

const GROUPS: { stage: Row['stage']; title: string; empty: string }[] = [
  { stage: 'UNDER_WAY', title: 'At the bench', empty: 'Nothing is on the lifts.' },
  { stage: 'PLANNED', title: 'Planned and promised', empty: 'No job has a place on the board.' },
  { stage: 'DRAFT', title: 'Being built', empty: 'No job waits for a slot.' },
  { stage: 'DONE', title: 'Done in the last 14 days', empty: 'None was signed lately.' },
];

/** Every job that somebody still has to do something about, and those just done. */
export default function JobList() {
  const me = useMe();
  const { data: jobs, error, refetch } = useQuery(jobsQuery);
  useCardsAtHand(me.bench ? jobs : undefined, me.today);
  return (
    <div className="page">
      <div className="page-head">
        <h1>Jobs</h1>
        {me.bench && (
          <>
            <Link className="action" to="/calculators">
              Calculators
            </Link>
            <Link className="action" to="/practice">
              Practice
            </Link>
          </>
        )}
      </div>
      <ProblemNote error={error} retry={() => refetch()} />
      {jobs &&
        GROUPS.map((g) => {
          const rows = jobs.filter((j) => j.stage === g.stage);
          return (
            <section key={g.stage} className="job-group">
              <h2 className="group-head">
                <span className={`stage-mark ${g.stage}`} aria-hidden="true" /> {g.title}{' '}
                <span className="count">{rows.length}</span>
              </h2>
              {rows.length === 0 && <p className="hint pad">{g.empty}</p>}
              {rows.map((j) => (
                <JobRow key={j.id} job={j} desk={me.desk} bench={me.bench} />
              ))}
            </section>
          );
        })}
    </div>
  );
}

function JobRow({ job, desk, bench }: { job: Row; desk: boolean; bench: boolean }) {
  const card = `/jobs/${job.id}/card`;
  return (
    <div className="job-row">
      <span className="registration">{job.registration}</span>
      <span>
        {job.makeModel}
        <span className="second">
          {job.inspection
            ? `inspection, ${job.ownerName}`
            : job.reworkOf !== undefined
              ? `comes back from job ${job.reworkOf}`
              : job.ownerName}
        </span>
      </span>
      <span>
        {job.waits ? (
          <>
            <b className="waits-for">waits for {job.waits}</b>
            {job.booking && (
              <span className="second">
                since {formatWeekday(job.booking.start)}, {formatTime(job.booking.start)}
              </span>
            )}
          </>
        ) : job.booking ? (
          <>
            {formatWeekday(job.booking.start)}, {formatTime(job.booking.start)}
            {job.stage === 'PLANNED' &&
              (job.booking.promised ? ', promised' : ', not promised yet')}
            <span className="second">
              to {formatWeekday(job.booking.end)}, {formatTime(job.booking.end)}
            </span>
          </>
        ) : (
          <span className="hint">no slot yet</span>
        )}
      </span>
      <span>
        {job.booking?.technician}
        <span className="second">{job.booking?.bay}</span>
      </span>
      <span className="links">
        {job.stage === 'DONE' && (
          <>
            signed {formatDate(job.completedOn ?? '')}
            <a
              className="action"
              href={`/api/jobs/${job.id}/record.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              record
            </a>
            {bench && !job.inspection && (
              <a
                className="action"
                href={`/api/jobs/${job.id}/card/label.pdf`}
                target="_blank"
                rel="noreferrer"
              >
                label
              </a>
            )}
          </>
        )}
        {desk && (job.stage === 'DRAFT' || job.stage === 'PLANNED') && (
          <Link className="action" to={`/jobs/${job.id}`}>
            {job.stage === 'DRAFT' ? 'promise' : 'the job'}
          </Link>
        )}
        {bench &&
          (job.stage === 'PLANNED' || job.stage === 'UNDER_WAY' || job.stage === 'DONE') && (
            <Link className="action" to={card}>
              {job.stage === 'PLANNED' ? 'start' : job.stage === 'UNDER_WAY' ? 'go on' : 'card'}
            </Link>
          )}
      </span>
    </div>
  );
}

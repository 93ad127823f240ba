import { useQuery } from '@tanstack/react-query';
import { Button, Popconfirm } from 'antd';
import { Link, useParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDate, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Booking } from './Booking';
import { BuildBar } from './BuildBar';
import { BundleTable } from './BundleTable';
import { Estimates } from './Estimates';
import { jobQuery, useBuild, useCancel, useUnbook } from './jobQueries';
import { Inspection } from './Inspection';
import { Ladder } from './Ladder';
import { Rework } from './Rework';

type Job = Schemas['JobView'];

/** What goes into a job, why, what it takes, and when it is done. */
export default function JobBuilder() {
  const id = Number(useParams().id);
  const me = useMe();
  const { data: job, error, refetch } = useQuery(jobQuery(id));
  if (error && !job) {
    return (
      <div className="page">
        <ProblemNote error={error} retry={() => refetch()} />
      </div>
    );
  }
  if (!job) return <p className="hint loading">Reading the job…</p>;
  const editable = me.desk && (job.stage === 'DRAFT' || job.stage === 'PLANNED');
  const growing = me.desk && job.stage === 'UNDER_WAY';
  return (
    <div className="page builder">
      <Head job={job} />
      <div className="builder-columns">
        {job.inspection ? (
          <Inspection key={job.version} job={job} editable={editable} />
        ) : (
          <div>
            <h2>What goes in</h2>
            <BuildBar key={job.build.keptUntil} job={job} editable={editable} />
            {growing && <AddToCard job={job} />}
            <BundleTable job={job} editable={editable || growing} />
            <h2>Labour, each step once</h2>
            <Ladder job={job} currency={me.currency} />
          </div>
        )}
        <aside>
          <h2>Estimate</h2>
          <Estimates job={job} editable={editable} />
          {job.booking && (
            <Promised job={job} editable={editable} bench={me.bench} desk={me.desk} />
          )}
          {editable && !job.booking && <Booking job={job} today={me.today} />}
          {editable && <GiveUp job={job} />}
        </aside>
      </div>
    </div>
  );
}

function Head({ job }: { job: Job }) {
  return (
    <header className="builder-head">
      <h1>
        <Link className="registration" to={`/vehicles/${job.vehicleId}`}>
          {job.registration}
        </Link>{' '}
        {job.makeModel}
      </h1>
      <p>
        <StatusSwatch status={job.status} /> {job.actBy ? `Act by ${formatDate(job.actBy)}. ` : ''}
        {job.family} <InterferenceMark value={job.interference} /> · {job.ownerName}
        {job.fleet && job.fleet !== job.ownerName && `, ${job.fleet}`} · {job.ownerPhone}
      </p>
    </header>
  );
}

/** At the bench a line that was found to be needed goes onto the card by one touch. */
function AddToCard({ job }: { job: Job }) {
  const build = useBuild(job);
  const waiting = job.lines.filter((l) => l.kind === 'ITEM' && l.included && !l.onCard);
  if (waiting.length === 0) return null;
  return (
    <div className="warning-note">
      What was found asks for {waiting.map((l) => l.name.toLowerCase()).join(', ')}. Ask the owner,
      then{' '}
      <Button size="small" loading={build.isPending} onClick={() => build.mutate({})}>
        Add to the card
      </Button>
      <ProblemNote error={build.error} />
    </div>
  );
}

function Promised({
  job,
  editable,
  bench,
  desk,
}: {
  job: Job;
  editable: boolean;
  bench: boolean;
  desk: boolean;
}) {
  const unbook = useUnbook(job.id);
  const b = job.booking!;
  return (
    <section className="promised">
      <h2>
        {job.stage === 'DONE'
          ? 'Done'
          : job.stage === 'UNDER_WAY'
            ? 'At the bench'
            : b.promised
              ? 'Promised'
              : 'Planned, not promised yet'}
      </h2>
      <p className="figure">
        {formatWeekday(b.start)}, {formatTime(b.start)}
      </p>
      <p>
        until {formatWeekday(b.end)}, {formatTime(b.end)}
        <br />
        {b.technician}, {b.bay}
      </p>
      <div className="actions">
        {bench && job.stage !== 'CANCELLED' && (
          <Link className="button" to={`/jobs/${job.id}/card`}>
            {job.stage === 'PLANNED' ? 'Open the job card' : 'The job card'}
          </Link>
        )}
        {editable && (
          <Link className="action" to={`/board?job=${job.id}`}>
            On the board
          </Link>
        )}
        {editable && (
          <button
            className="action"
            onClick={() => unbook.mutate(job.version)}
            disabled={unbook.isPending}
          >
            Take off the board
          </button>
        )}
      </div>
      <ProblemNote error={unbook.error} />
      {desk && job.stage === 'DONE' && !job.inspection && <Rework jobId={job.id} />}
    </section>
  );
}

function GiveUp({ job }: { job: Job }) {
  const cancel = useCancel(job.id);
  return (
    <>
      <Popconfirm
        title="Give this job up?"
        description="It stays in the vehicle's history."
        okText="Give it up"
        cancelText="Keep it"
        onConfirm={() => cancel.mutate(job.version)}
      >
        <button className="action quiet">Give this job up</button>
      </Popconfirm>
      <ProblemNote error={cancel.error} />
    </>
  );
}

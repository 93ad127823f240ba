import { useQuery } from '@tanstack/react-query';
import { Checkbox, Popconfirm } from 'antd';
import { Link, useParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import {
  formatDate,
  formatHours,
  formatMoney,
  formatTime,
  formatWeekday,
} from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Booking } from './Booking';
import { jobQuery, useCancel, useChoose, useUnbook } from './jobQueries';
import { Ladder } from './Ladder';

type Job = Schemas['JobView'];

/** What goes into a job, why, what it takes, and when it is done. */
export default function JobBuilder() {
  const id = Number(useParams().id);
  const me = useMe();
  const { data: job, error, refetch } = useQuery(jobQuery(id));
  const choose = useChoose(id);
  if (error && !job) {
    return (
      <div className="page">
        <ProblemNote error={error} retry={() => refetch()} />
      </div>
    );
  }
  if (!job) return <p className="hint loading">Reading the job…</p>;
  const editable = me.desk && (job.stage === 'DRAFT' || job.stage === 'PLANNED');
  const toggle = (code: string, on: boolean) => {
    const chosen = job.lines.filter((l) => l.rule === 'OFFERED' && l.included).map((l) => l.code);
    choose.mutate({
      version: job.version,
      chosen: on ? [...chosen, code] : chosen.filter((c) => c !== code),
    });
  };
  return (
    <div className="page builder">
      <Head job={job} />
      <div className="builder-columns">
        <div>
          <h2>What goes in</h2>
          <ProblemNote error={choose.error} retry={() => refetch()} />
          <Lines
            job={job}
            currency={me.currency}
            editable={editable && !choose.isPending}
            asked={choose.isPending ? choose.variables.chosen : undefined}
            onToggle={toggle}
          />
          <h2>Labour, each step once</h2>
          <Ladder job={job} />
        </div>
        <aside>
          <Totals job={job} currency={me.currency} />
          {job.booking && <Promised job={job} editable={editable} bench={me.bench} />}
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

function Lines({
  job,
  currency,
  editable,
  asked,
  onToggle,
}: {
  job: Job;
  currency: string;
  editable: boolean;
  /** what has been asked for and not answered yet, so that a touch shows at once */
  asked?: string[];
  onToggle: (code: string, on: boolean) => void;
}) {
  const items = job.lines.filter((l) => l.kind === 'ITEM');
  const follows = job.lines.filter((l) => l.kind === 'FOLLOWS');
  const line = (l: Job['lines'][number]) => (
    <tr key={`${l.kind}-${l.code}`} className={l.included ? '' : 'left-out'}>
      <td className="tick">
        {l.rule === 'OFFERED' ? (
          <Checkbox
            aria-label={`${l.name} in the job`}
            checked={asked ? asked.includes(l.code) : l.included}
            disabled={!editable}
            onChange={(e) => onToggle(l.code, e.target.checked)}
          />
        ) : (
          <span className="rule-word">{l.rule === 'REQUIRED' ? 'must' : 'out'}</span>
        )}
      </td>
      <td>
        {l.name}
        <span className="second">{l.reason}</span>
      </td>
      <td className="num">{ownTime(l)}</td>
      <td className="num">{formatMoney(l.partsMinor, currency)}</td>
      <td className="num">
        {l.kind === 'FOLLOWS'
          ? ''
          : `${l.included ? '' : '+'}${formatMoney(l.labourMinor + l.partsMinor, currency)}`}
      </td>
    </tr>
  );
  return (
    <table className="plain lines">
      <thead>
        <tr>
          <th />
          <th>Item and reason</th>
          <th className="num">Own time</th>
          <th className="num">Parts</th>
          <th className="num">Adds</th>
        </tr>
      </thead>
      <tbody>{items.map(line)}</tbody>
      {follows.length > 0 && (
        <tbody>
          <tr>
            <th colSpan={5} className="sub">
              Follows from what is opened
            </th>
          </tr>
          {follows.map(line)}
        </tbody>
      )}
    </table>
  );
}

/** What a line takes beyond what the others take anyway. */
function ownTime(l: Job['lines'][number]): string {
  if (l.kind === 'FOLLOWS') return '';
  if (l.included) return l.minutes === 0 ? 'all shared' : `${formatHours(l.minutes)} h`;
  return `+${formatHours(l.minutes)} h`;
}

function Totals({ job, currency }: { job: Job; currency: string }) {
  return (
    <dl className="totals">
      <div>
        <dt>
          Labour{' '}
          <span className="hint">
            {formatHours(job.minutes)} h at {formatMoney(job.labourRateMinor, currency)} an hour
          </span>
        </dt>
        <dd>{formatMoney(job.labourMinor, currency)}</dd>
      </div>
      <div>
        <dt>Parts</dt>
        <dd>{formatMoney(job.partsMinor, currency)}</dd>
      </div>
      <div className="sum">
        <dt>
          Job <span className="hint">before tax</span>
        </dt>
        <dd>{formatMoney(job.totalMinor, currency)}</dd>
      </div>
      {job.helperMinutes > 0 && (
        <div>
          <dt>Second pair of hands</dt>
          <dd>{formatHours(job.helperMinutes)} h</dd>
        </div>
      )}
    </dl>
  );
}

function Promised({ job, editable, bench }: { job: Job; editable: boolean; bench: boolean }) {
  const unbook = useUnbook(job.id);
  const b = job.booking!;
  return (
    <section className="promised">
      <h2>
        {job.stage === 'DONE' ? 'Done' : job.stage === 'UNDER_WAY' ? 'At the bench' : 'Promised'}
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

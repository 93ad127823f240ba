import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Popconfirm, Radio } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Problem } from '../../api/client';
import { DAYS } from '../../shared/days';
import { formatDate, formatMoney, formatTime, formatWeekday } from '../../shared/format';
import { Field } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { DateField } from '../../shared/ui/DateField';
import { ownJobsQuery, useOwnAnswer, useOwnWish, type OwnJob } from './ownQueries';
import { Leave } from '../../shared/ui/Leave';

type Estimate = NonNullable<OwnJob['estimate']>;

/** What the fleet's contact has to answer, and when which vehicle is in the workshop. */
export function OwnJobs() {
  const { data: jobs, error, refetch } = useQuery(ownJobsQuery);
  if (error && !jobs) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!jobs) return <p className="hint loading">Reading your jobs…</p>;
  const waits = jobs.filter((j) => j.open > 0).length;
  return (
    <section className="own-jobs">
      <h2>
        In the workshop, or on the way there{' '}
        <span className="count">
          {waits === 0
            ? 'nothing waits for you'
            : `${waits} ${waits === 1 ? 'waits' : 'wait'} for your answer`}
        </span>
      </h2>
      <p>
        <Link className="action" to="/readings">
          Enter odometer readings
        </Link>
      </p>
      {jobs.length === 0 && <p className="empty">No vehicle of yours has a job now.</p>}
      {jobs.map((j) => (
        <Job key={j.jobId} job={j} />
      ))}
    </section>
  );
}

function Job({ job }: { job: OwnJob }) {
  const [asking, setAsking] = useState(false);
  return (
    <article className="own-job">
      <div className="own-head">
        <span>
          <Link to={`/vehicles/${job.vehicleId}`} className="registration">
            {job.registration}
          </Link>{' '}
          {job.makeModel}
        </span>
        <span>
          {job.doneOn
            ? `done on ${formatDate(job.doneOn)}`
            : job.from && job.to
              ? `${job.stateWords}: ${formatWeekday(job.from.slice(0, 10))}, ${formatTime(job.from)}; ready about ${formatWeekday(job.to.slice(0, 10))}, ${formatTime(job.to)}`
              : job.stateWords}
          {job.notBefore && `; not before ${formatDate(job.notBefore)}`}
          {job.days.length > 0 &&
            `; only on ${DAYS.filter((d) => job.days.includes(d.value))
              .map((d) => d.label)
              .join(', ')}`}
        </span>
        {job.mayWish && !asking && (
          <button type="button" className="action" onClick={() => setAsking(true)}>
            Other days…
          </button>
        )}
      </div>
      {asking && <Wishes job={job} onDone={() => setAsking(false)} />}
      {job.estimate && (
        <Answer
          key={`${job.estimate.number} ${job.version} ${job.open}`}
          job={job}
          estimate={job.estimate}
        />
      )}
    </article>
  );
}

function Wishes({ job, onDone }: { job: OwnJob; onDone: () => void }) {
  const me = useMe();
  const [notBefore, setNotBefore] = useState(job.notBefore);
  const [days, setDays] = useState(job.days);
  const wish = useOwnWish(job.jobId, onDone);
  const beside = wish.error instanceof Problem && wish.error.onlyAt('/notBefore');
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        wish.mutate({ notBefore, days, version: job.version });
      }}
    >
      <Field id={`from-${job.jobId}`} label="Not before" error={wish.error} at="/notBefore">
        <DateField
          id={`from-${job.jobId}`}
          min={me.today}
          value={notBefore}
          onChange={(d) => setNotBefore(d)}
        />
      </Field>
      <fieldset>
        <legend>Only on; none chosen: any day</legend>
        <Checkbox.Group options={DAYS} value={days} onChange={setDays} />
      </fieldset>
      {job.from && (
        <p className="hint">
          The time above stands until the workshop has rung you about another one.
        </p>
      )}
      {!beside && <ProblemNote error={wish.error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={wish.isPending}>
          Ask for these days
        </Button>
        <Leave onClick={onDone} />
      </div>
    </form>
  );
}

function Answer({ job, estimate }: { job: OwnJob; estimate: Estimate }) {
  const { currency } = useMe();
  const [leave, setLeave] = useState<string[]>([]);
  const answer = useOwnAnswer(job.jobId, () => setLeave([]));
  const open = estimate.lines.filter((l) => l.open);
  const agree = open.filter((l) => !leave.includes(l.code));
  const beside = answer.error instanceof Problem && answer.error.onlyAt('/agree', '/leave', '/on');
  return (
    <details className="own-estimate" open={open.length > 0}>
      <summary>
        Estimate {estimate.number} of {formatDate(estimate.madeOn)}:{' '}
        {formatMoney(estimate.netMinor, currency)} before tax,{' '}
        {formatMoney(estimate.totalMinor, currency)} with it
      </summary>
      <div className="fleet-words">
        {estimate.plain.map((p) => (
          <p key={p}>{p}</p>
        ))}
      </div>
      <table className="plain">
        <tbody>
          {estimate.lines.map((l) => (
            <tr key={l.code}>
              <td>
                {l.name}
                <span className="second">{l.stateWords}</span>
                {leave.includes(l.code) && <span className="second late">{l.warning}</span>}
              </td>
              <td className="num">
                {formatMoney(l.likelyMinor, currency)}
                {l.lowMinor !== l.highMinor && (
                  <span className="second">
                    {formatMoney(l.lowMinor, currency)} to {formatMoney(l.highMinor, currency)}
                  </span>
                )}
              </td>
              <td>
                {l.open && !estimate.expired && (
                  <Radio.Group
                    aria-label={l.name}
                    value={leave.includes(l.code) ? 'leave' : 'agree'}
                    onChange={(e) =>
                      setLeave(
                        e.target.value === 'leave'
                          ? [...leave, l.code]
                          : leave.filter((c) => c !== l.code),
                      )
                    }
                  >
                    <Radio value="agree">agree</Radio>
                    <Radio value="leave" disabled={!l.mayLeave}>
                      {l.mayLeave ? 'leave' : 'ring us to leave it'}
                    </Radio>
                  </Radio.Group>
                )}
              </td>
            </tr>
          ))}
          {estimate.othersMinor !== 0 && (
            <tr>
              <td>Opening and closing, and what the work uses up</td>
              <td className="num">{formatMoney(estimate.othersMinor, currency)}</td>
              <td />
            </tr>
          )}
        </tbody>
      </table>
      {estimate.expired && open.length > 0 && (
        <p className="warning-note">
          It was valid until {formatDate(estimate.validUntil)}. Ring us for a new one.
        </p>
      )}
      <FieldNote error={answer.error} at="/agree" />
      <FieldNote error={answer.error} at="/leave" />
      <FieldNote error={answer.error} at="/on" />
      {!beside && <ProblemNote error={answer.error} />}
      {open.length > 0 && (
        <div className="actions">
          {!estimate.expired && (
            <Button
              type="primary"
              loading={answer.isPending}
              onClick={() =>
                answer.mutate({
                  number: estimate.number,
                  agree: agree.map((l) => l.code),
                  leave,
                })
              }
            >
              {leave.length === 0
                ? `Agree to all ${agree.length} lines`
                : `Agree to ${agree.length}, leave ${leave.length}`}
            </Button>
          )}
          {estimate.mayRefuse && (
            <Popconfirm
              title="You do not want this work?"
              description={estimate.refusal}
              okText="We do not want it"
              cancelText="Go back"
              overlayClassName="own-refusal"
              onConfirm={() => answer.mutate({ number: estimate.number, refused: true })}
            >
              <Button loading={answer.isPending}>We do not want this work…</Button>
            </Popconfirm>
          )}
        </div>
      )}
    </details>
  );
}

import { useQuery } from '@tanstack/react-query';
import { AutoComplete, Button, Checkbox, Input, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { formatDate, formatHours, formatMoney } from '../../shared/format';
import { amountOf, minorOf } from '../../shared/money';
import { faulty } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { PrivatePage } from './PrivatePage';
import { estimatesQuery, useActual, useConsent, useMakeEstimate } from './jobQueries';
import { numberOf } from '../../shared/ui/spelling';

type Job = Schemas['JobView'];
type View = Schemas['EstimatesView'];
type Estimate = Schemas['EstimateView'];

const HOW = [
  { value: 'PHONE', label: 'phone' },
  { value: 'IN_PERSON', label: 'in person' },
  { value: 'MAIL', label: 'mail' },
  { value: 'TEXT_MESSAGE', label: 'text message' },
] as const;

/** The job's price, the estimates given, what was said to their lines, and what it cost in the end. */
export function Estimates({ job, editable }: { job: Job; editable: boolean }) {
  const { currency, desk } = useMe();
  const { data: view, error, refetch } = useQuery(estimatesQuery(job.id));
  const make = useMakeEstimate(job.id);
  if (error && !view) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!view) return <p className="hint loading">Working out the price…</p>;
  const newest = view.newest;
  const open = job.stage === 'DRAFT' || job.stage === 'PLANNED' || job.stage === 'UNDER_WAY';
  return (
    <section className="estimates">
      <Sums view={view} job={job} currency={currency} />
      <div className="actions">
        {desk && open && (!newest || !newest.current) && (
          <Button
            type={newest ? 'default' : 'primary'}
            loading={make.isPending}
            onClick={() => make.mutate(undefined)}
          >
            {newest ? `Make estimate ${newest.number + 1}` : 'Make the estimate'}
          </Button>
        )}
        {newest && (
          <a
            className={newest.current ? 'button' : 'action'}
            href={`/api/jobs/${job.id}/estimates/${newest.number}/estimate.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            Print estimate {newest.number}
          </a>
        )}
        {view.numbers.slice(1).map((n) => (
          <a
            key={n}
            className="action"
            href={`/api/jobs/${job.id}/estimates/${n}/estimate.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            {n}
          </a>
        ))}
      </div>
      <ProblemNote error={make.error} />
      {newest && (
        <>
          {!newest.current && open && (
            <p className="warning-note">
              The job has changed since estimate {newest.number}. Lines that are added are asked
              about; what was agreed stays.
            </p>
          )}
          <p className="hint">
            Estimate {newest.number}, {formatDate(newest.madeOn)}, by {newest.madeBy}; valid until{' '}
            {formatDate(newest.validUntil)}.
          </p>
          <Consents
            job={job}
            estimate={newest}
            editable={editable}
            open={view.open}
            speakers={view.speakers}
          />
          {desk && open && <PrivatePage jobId={job.id} />}
        </>
      )}
      {view.left.length > 0 && (
        <>
          <h3>Left by the owner</h3>
          <ul className="left-lines">
            {view.left.map((l) => (
              <li key={l.code}>
                {l.name}
                <span className="second">
                  {l.consent.saidBy}, {l.consent.howWords}, {formatDate(l.consent.on)}
                  {l.consent.signed ? ', decline signed' : ''}. Told: {l.consent.warning}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      {job.stage === 'DONE' && <Outcome job={job} view={view} currency={currency} />}
    </section>
  );
}

function Sums({ view, job, currency }: { view: View; job: Job; currency: string }) {
  const s = view.draft;
  return (
    <dl className="totals">
      <div className="sum">
        <dt>
          Likely <span className="hint">with {Math.round(s.taxShare * 1000) / 10} % tax</span>
        </dt>
        <dd>{formatMoney(s.totalMinor, currency)}</dd>
      </div>
      {s.lowMinor !== s.highMinor && (
        <div>
          <dt>Between</dt>
          <dd>
            {formatMoney(s.lowMinor, currency)} and {formatMoney(s.highMinor, currency)}
          </dd>
        </div>
      )}
      <div>
        <dt>
          Labour{' '}
          <span className="hint">
            {formatHours(job.minutes)} h by the book
            {view.timeFactor !== 1 && `, times ${view.timeFactor.toFixed(2)} as we work`}
          </span>
        </dt>
        <dd>{formatMoney(s.labourMinor, currency)}</dd>
      </div>
      <div>
        <dt>
          Parts <span className="hint">and what the job uses up</span>
        </dt>
        <dd>{formatMoney(s.partsMinor, currency)}</dd>
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

/** Line by line: how it stands, who said it, when and how, and what was said before. */
function Consents({
  job,
  estimate,
  editable,
  open,
  speakers,
}: {
  job: Job;
  estimate: Estimate;
  editable: boolean;
  open: number;
  speakers: string[];
}) {
  const me = useMe();
  const asked = estimate.lines.filter((l) => l.asked);
  const [picked, setPicked] = useState<string[]>();
  const [saidBy, setSaidBy] = useState(job.ownerName);
  const [how, setHow] = useState<Schemas['SaidIn']['how']>('PHONE');
  const [warning, setWarning] = useState('');
  const [signed, setSigned] = useState(false);
  const [said, setSaid] = useState<Schemas['SaidIn']['answer']>('AGREED');
  const consent = useConsent(job.id);
  // what the owner has still to be asked about is asked about first
  const chosen = picked ?? asked.filter((l) => l.open).map((l) => l.code);
  const may = me.desk && (editable || job.stage === 'UNDER_WAY');
  const before = job.stage === 'DRAFT' || job.stage === 'PLANNED';
  const refuses = before && asked.some((l) => l.purpose && chosen.includes(l.code));
  const say = (answer: Schemas['SaidIn']['answer'], insist: boolean) => {
    setSaid(answer);
    consent.mutate(
      {
        number: estimate.number,
        lines: chosen,
        answer,
        saidBy,
        on: me.today,
        how,
        warning,
        signed,
        refused: answer === 'LEFT' && refuses,
        insist,
      },
      { onSuccess: () => (setPicked(undefined), setWarning(''), setSigned(false)) },
    );
  };
  const mayInsist = consent.error instanceof Problem && consent.error.suggestion === 'insist';
  const beside = consent.error instanceof Problem && consent.error.onlyAt(...CONSENT_FIELDS);
  return (
    <div className="consents">
      <h3>
        Consent{' '}
        <span className="count">{open === 0 ? 'all lines answered' : `${open} to ask about`}</span>
      </h3>
      <table className="plain">
        <tbody>
          {asked.map((l) => (
            <tr key={l.code}>
              <td className="tick">
                {may && (
                  <Checkbox
                    aria-label={`Answer for ${l.name}`}
                    checked={chosen.includes(l.code)}
                    onChange={(e) =>
                      setPicked(
                        e.target.checked ? [...chosen, l.code] : chosen.filter((c) => c !== l.code),
                      )
                    }
                  />
                )}
              </td>
              <td>
                {l.name}
                <span className={l.open && l.said.length > 0 ? 'second late' : 'second'}>
                  {l.stateWords}
                  {l.said[0] && `; ${saidWords(l.said[0])}`}
                </span>
                {l.said.length > 1 && (
                  <details className="second">
                    <summary>before that</summary>
                    {l.said.slice(1).map((c, i) => (
                      <div key={i}>
                        {c.answerWords} {saidWords(c)}
                      </div>
                    ))}
                  </details>
                )}
              </td>
              <td className="num">{formatMoney(l.likelyMinor, me.currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {may && (
        <form className="form" onSubmit={(e) => e.preventDefault()}>
          <FieldNote error={consent.error} at="/lines" />
          <div className="fields">
            <div className="grow">
              <label htmlFor="said-by">Said by</label>
              <AutoComplete
                id="said-by"
                value={saidBy}
                maxLength={120}
                status={faulty(consent.error, '/saidBy')}
                onChange={setSaidBy}
                options={speakers.map((value) => ({ value }))}
              />
              <FieldNote error={consent.error} at="/saidBy" />
              {mayInsist && (
                <button type="button" className="action" onClick={() => say(said, true)}>
                  Note it all the same
                </button>
              )}
            </div>
            <div>
              <label htmlFor="how">How</label>
              <Select id="how" className="how" value={how} onChange={setHow} options={[...HOW]} />
            </div>
          </div>
          <div>
            <label htmlFor="warning">Told of the risk, for lines that are left</label>
            <Input
              id="warning"
              value={warning}
              maxLength={400}
              status={faulty(consent.error, '/warning')}
              onChange={(e) => setWarning(e.target.value)}
            />
            <FieldNote error={consent.error} at="/warning" />
          </div>
          <Checkbox checked={signed} onChange={(e) => setSigned(e.target.checked)}>
            The decline of a required line is signed
          </Checkbox>
          <FieldNote error={consent.error} at="/signed" />
          <FieldNote error={consent.error} at="/on" />
          <FieldNote error={consent.error} at="/refused" />
          {!beside && <ProblemNote error={consent.error} />}
          <div className="actions">
            <Button
              type="primary"
              disabled={chosen.length === 0}
              loading={consent.isPending}
              onClick={() => say('AGREED', false)}
            >
              Agreed, {chosen.length} {chosen.length === 1 ? 'line' : 'lines'}
            </Button>
            {before && chosen.length > 0 && (
              <a
                className="action"
                href={`/api/jobs/${job.id}/estimates/${estimate.number}/decline.pdf?${new URLSearchParams(
                  { lines: chosen.join(','), told: warning },
                ).toString()}`}
                target="_blank"
                rel="noreferrer"
              >
                Print what is signed when they are left
              </a>
            )}
            {refuses ? (
              <Popconfirm
                title="Without these lines there is no job."
                description="The no is noted with its warning, and the job is given up."
                okText="Note it and give the job up"
                cancelText="Go back"
                onConfirm={() => say('LEFT', false)}
              >
                <Button loading={consent.isPending}>Refused…</Button>
              </Popconfirm>
            ) : (
              <Button
                disabled={chosen.length === 0}
                loading={consent.isPending}
                onClick={() => say('LEFT', false)}
              >
                Left
              </Button>
            )}
          </div>
        </form>
      )}
    </div>
  );
}

const CONSENT_FIELDS = ['/lines', '/saidBy', '/warning', '/signed', '/on', '/refused'];

const saidWords = (c: Schemas['ConsentView']) =>
  `by ${c.saidBy}, ${c.howWords}, ${formatDate(c.on)}${c.warning ? `, told: ${c.warning}` : ''}`;

/** What it took against what was estimated. */
function Outcome({ job, view, currency }: { job: Job; view: View; currency: string }) {
  const me = useMe();
  const actual = useActual(job.id);
  const [hours, setHours] = useState(formatHours(job.actual?.minutes ?? job.minutes));
  const [parts, setParts] = useState(amountOf(job.actual?.partsMinor ?? job.partsMinor, currency));
  const o = view.outcome;
  return (
    <>
      <h3>What it took</h3>
      {o && (
        <p>
          {formatHours(o.minutes)} h against {formatHours(o.estimatedMinutes)} h,{' '}
          {formatMoney(o.costMinor, currency)} against {formatMoney(o.estimatedMinor, currency)}{' '}
          before tax:{' '}
          <b className={o.differenceMinor > 0 ? 'late' : ''}>
            {formatMoney(Math.abs(o.differenceMinor), currency)}{' '}
            {o.differenceMinor > 0 ? 'over' : 'under'}
          </b>
          .
        </p>
      )}
      {me.desk && (
        <form
          className="form"
          onSubmit={(e) => {
            e.preventDefault();
            actual.mutate({
              minutes: Math.round(numberOf(hours, 2) * 60),
              partsMinor: minorOf(parts, currency),
              version: job.version,
            });
          }}
        >
          <div className="fields">
            <div>
              <label htmlFor="actual-hours">Hours worked</label>
              <Input
                id="actual-hours"
                value={hours}
                suffix="h"
                onChange={(e) => setHours(e.target.value)}
              />
              <FieldNote error={actual.error} at="/minutes" />
            </div>
            <div>
              <label htmlFor="actual-parts">Parts used</label>
              <Input
                id="actual-parts"
                value={parts}
                suffix={currency}
                onChange={(e) => setParts(e.target.value)}
              />
              <FieldNote error={actual.error} at="/partsMinor" />
            </div>
          </div>
          <ProblemNote error={actual.error} />
          <Button htmlType="submit" loading={actual.isPending}>
            Keep what it took
          </Button>
        </form>
      )}
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { DueWindowPicture } from '../../drawing/DueWindowPicture';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDate, formatKm, formatMoment, formatMoney } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  dossierQuery,
  useConditions,
  useMarkReading,
  useStartJob,
  useWithdraw,
} from './dossierQueries';
import { EvidenceForm } from './EvidenceForm';
import { ReadingForm } from './ReadingForm';

export type DossierForm = 'reading' | 'evidence';
type View = Schemas['DossierView'];

/** A vehicle's own page. */
export default function DossierPage() {
  const { id } = useParams();
  const [params] = useSearchParams();
  const [form, setForm] = useState<DossierForm>();
  const navigate = useNavigate();
  const startJob = useStartJob((jobId) => navigate(`/jobs/${jobId}`, { replace: true }));
  const asked = useRef(false);
  const vehicleId = Number(id);
  useEffect(() => {
    if (params.get('job') === 'new' && !asked.current) {
      asked.current = true;
      startJob.mutate(vehicleId);
    }
  }, [params, startJob, vehicleId]);
  return (
    <div className="page dossier-page">
      <ProblemNote error={startJob.error} />
      <Dossier id={vehicleId} form={form} onForm={setForm} wide />
    </div>
  );
}

/** How one vehicle stands, why, and what has happened to it. */
export function Dossier({
  id,
  form,
  onForm,
  wide = false,
}: {
  id: number;
  form?: DossierForm;
  onForm: (form?: DossierForm) => void;
  wide?: boolean;
}) {
  const me = useMe();
  const navigate = useNavigate();
  const { data: v, error, refetch } = useQuery(dossierQuery(id));
  const startJob = useStartJob((jobId) => navigate(`/jobs/${jobId}`));
  // what is shown stays when asking again fails, and with it whatever is being typed
  if (error && !v) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!v) return <p className="hint loading">Reading the record…</p>;
  const Title = wide ? 'h1' : 'h2';
  const first = (
    <>
      <header className="dossier-head">
        <Title className="title">
          <span className="registration">{v.registration}</span> {v.makeModel}
        </Title>
        <p className="sentence">
          <StatusSwatch status={v.status} /> <b>{v.statusWords}.</b> {v.sentence}
        </p>
        <p className="contact">
          <span>
            {v.ownerName}
            {v.fleet && v.fleet !== v.ownerName && `, ${v.fleet}`}
          </span>
          <a className="phone" href={`tel:${v.ownerPhone.replaceAll(' ', '')}`}>
            {v.ownerPhone}
          </a>
        </p>
      </header>
      {v.window ? (
        <DueWindowPicture window={v.window} />
      ) : (
        <p className="empty">No engine family on file, so there is no window to draw.</p>
      )}
      <Actions
        v={v}
        form={form}
        onForm={onForm}
        onJob={() => startJob.mutate(v.id)}
        busy={startJob.isPending}
      />
      <ProblemNote error={startJob.error} />
      {form === 'reading' && <ReadingForm v={v} today={me.today} onClose={() => onForm()} />}
      {form === 'evidence' && <EvidenceForm v={v} today={me.today} onClose={() => onForm()} />}
    </>
  );
  const reasons = <Reasons v={v} currency={me.currency} />;
  const rest = (
    <>
      <Conditions v={v} editable={me.desk} />
      <Items v={v} />
      <Evidence v={v} editable={me.desk} />
      <Readings v={v} editable={me.desk} />
      <JobRefs v={v} linked={!me.readsOnly} />
      <Log v={v} />
    </>
  );
  return wide ? (
    <div className="dossier wide">
      <div>
        {first}
        {reasons}
      </div>
      <div>{rest}</div>
    </div>
  ) : (
    <div className="dossier">
      {first}
      {reasons}
      {rest}
    </div>
  );
}

function Actions({
  v,
  form,
  onForm,
  onJob,
  busy,
}: {
  v: View;
  form?: DossierForm;
  onForm: (form?: DossierForm) => void;
  onJob: () => void;
  busy: boolean;
}) {
  const me = useMe();
  if (me.readsOnly) return null;
  const toggle = (f: DossierForm) => onForm(form === f ? undefined : f);
  return (
    <div className="actions">
      {me.desk && v.openJobId === undefined && v.family && (
        <Button type="primary" onClick={onJob} loading={busy}>
          Build the job
        </Button>
      )}
      {me.desk && v.openJobId !== undefined && v.nextStep === 'PROMISE' && (
        <Link className="button" to={`/jobs/${v.openJobId}`}>
          Promise a slot
        </Link>
      )}
      {v.openJobId !== undefined && v.nextStep !== 'PROMISE' && me.bench && (
        <Link className="button" to={`/jobs/${v.openJobId}/card`}>
          {v.nextStep === 'START' ? 'Start the job' : 'Go on with the job'}
        </Link>
      )}
      {v.openJobId !== undefined && v.nextStep !== 'PROMISE' && me.desk && (
        <Link className="action" to={`/jobs/${v.openJobId}`}>
          The job
        </Link>
      )}
      <button
        className="action"
        aria-expanded={form === 'reading'}
        onClick={() => toggle('reading')}
      >
        Odometer
      </button>
      <button
        className="action"
        aria-expanded={form === 'evidence'}
        onClick={() => toggle('evidence')}
      >
        Evidence
      </button>
    </div>
  );
}

function Reasons({ v, currency }: { v: View; currency: string }) {
  return (
    <section aria-label="Reasons">
      <dl className="reasons">
        {v.reasons.map((r, i) => (
          <div key={i}>
            <dt>{r.topic !== v.reasons[i - 1]?.topic && r.topic}</dt>
            <dd>{r.text}</dd>
          </div>
        ))}
        {v.ifItGoes && (
          <div>
            <dt>If it goes</dt>
            <dd>
              {v.interference === 'NO'
                ? 'Recovery, the job and days off the road: '
                : 'Engine, recovery and days off the road: '}
              {formatMoney(v.ifItGoes.likelyMinor, currency)}
              {v.ifItGoes.lowMinor !== v.ifItGoes.highMinor &&
                `, from ${formatMoney(v.ifItGoes.lowMinor, currency)} to ${formatMoney(v.ifItGoes.highMinor, currency)}`}
              {v.exposurePerWeekMinor === undefined
                ? '. Exposure not known.'
                : `. Waiting a week exposes ${formatMoney(v.exposurePerWeekMinor, currency)}.`}
            </dd>
          </div>
        )}
      </dl>
    </section>
  );
}

function Conditions({ v, editable }: { v: View; editable: boolean }) {
  const change = useConditions(v.id);
  const applying = v.conditions.filter((c) => c.applies);
  return (
    <section>
      <h3>Hard use</h3>
      {editable ? (
        <div className="checks">
          {v.conditions.map((c) => (
            <Checkbox
              key={c.code}
              checked={change.isPending ? change.variables.conditions.includes(c.code) : c.applies}
              disabled={change.isPending}
              onChange={(e) =>
                change.mutate({
                  version: v.version,
                  conditions: v.conditions
                    .filter((x) => (x.code === c.code ? e.target.checked : x.applies))
                    .map((x) => x.code),
                })
              }
            >
              {c.words}
            </Checkbox>
          ))}
        </div>
      ) : (
        <p>{applying.length ? applying.map((c) => c.words).join(', ') : 'none'}</p>
      )}
      <ProblemNote error={change.error} />
    </section>
  );
}

function Items({ v }: { v: View }) {
  if (v.items.length === 0) return null;
  return (
    <section>
      <h3>
        Item clocks {v.interference && <InterferenceMark value={v.interference} />}{' '}
        <span className="hint">{v.family}</span>
      </h3>
      <table className="plain">
        <thead>
          <tr>
            <th>Item</th>
            <th>Since</th>
            <th className="num">Distance, km</th>
            <th className="num">Age, months</th>
            <th>Act by</th>
          </tr>
        </thead>
        <tbody>
          {v.items.map((i) => (
            <tr key={i.code}>
              <td>
                {i.name}
                {i.inspection && <span className="hint"> inspect</span>}
              </td>
              <td>
                {i.renewedOn ? formatDate(i.renewedOn) : <span className="hint">not known</span>}
                {i.renewedKm !== undefined && (
                  <span className="second">{formatKm(i.renewedKm)}</span>
                )}
              </td>
              <td className={i.binding === 'DISTANCE' ? 'num binds' : 'num'}>
                {i.usedKm === undefined || i.limitKm === undefined
                  ? ''
                  : `${Math.round(i.usedKm).toLocaleString('en-GB')} of ${i.limitKm.toLocaleString('en-GB')}`}
              </td>
              <td className={i.binding === 'AGE' ? 'num binds' : 'num'}>
                {i.usedMonths === undefined ? '' : `${i.usedMonths} of ${i.limitMonths}`}
              </td>
              <td>
                {i.actBy ? formatDate(i.actBy) : ''}
                <span className="second">
                  {i.status === 'NO_BOOK' ? 'no limit of its own' : i.statusWords}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Evidence({ v, editable }: { v: View; editable: boolean }) {
  const [withdrawing, setWithdrawing] = useState<number>();
  const [why, setWhy] = useState('');
  const withdraw = useWithdraw(v.id, () => {
    setWithdrawing(undefined);
    setWhy('');
  });
  return (
    <section>
      <h3>Evidence</h3>
      {v.evidence.length === 0 && <p className="hint">Nothing found so far.</p>}
      <ul className="plain">
        {v.evidence.map((e) => (
          <li key={e.id} className={e.endedOn ? 'ended' : ''}>
            <span>{e.words}</span>
            {e.note && <span className="second">{e.note}</span>}
            <span className="second">
              found {formatDate(e.found)} by {e.enteredBy}
              {e.endedOn && `; ${e.endedWhy}, ${formatDate(e.endedOn)}`}
              {!e.endedOn && editable && (
                <>
                  {' '}
                  <button className="link" onClick={() => setWithdrawing(e.id)}>
                    Withdraw
                  </button>
                </>
              )}
            </span>
            {withdrawing === e.id && (
              <form
                className="inline"
                onSubmit={(x) => {
                  x.preventDefault();
                  withdraw.mutate({ evidenceId: e.id, why });
                }}
              >
                <label htmlFor={`why-${e.id}`}>Why</label>
                <input
                  id={`why-${e.id}`}
                  className="text"
                  autoFocus
                  value={why}
                  onChange={(x) => setWhy(x.target.value)}
                />
                <Button htmlType="submit" loading={withdraw.isPending}>
                  Withdraw it
                </Button>
                <ProblemNote error={withdraw.error} />
              </form>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Readings({ v, editable }: { v: View; editable: boolean }) {
  const mark = useMarkReading(v.id);
  return (
    <section>
      <h3>Readings</h3>
      {v.readings.length === 0 && <p className="hint">No reading yet; its class speaks for it.</p>}
      <ProblemNote error={mark.error} />
      <table className="plain">
        <tbody>
          {v.readings.map((r) => (
            <tr key={r.id} className={r.markedWrong || r.rejected ? 'rejected-row' : ''}>
              <td>{formatDate(r.date)}</td>
              <td className="num">
                {formatKm(r.km)}
                {r.writtenUnit === 'MILES' && (
                  <span className="second">{r.writtenValue.toLocaleString('en-GB')} miles</span>
                )}
              </td>
              <td>
                {r.sourceWords}
                {(r.markedWrong || r.rejected) && (
                  <span className="second">
                    {r.markedWrong ? 'marked wrong' : `left out: ${r.rejected}`}
                  </span>
                )}
              </td>
              <td className="num">
                {editable && (
                  <button
                    className="link"
                    onClick={() =>
                      mark.mutate({ readingId: r.id, wrong: !r.markedWrong, version: v.version })
                    }
                  >
                    {r.markedWrong ? 'Take back in' : 'Wrong'}
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const STAGES = {
  DRAFT: 'being built',
  PLANNED: 'promised',
  UNDER_WAY: 'at the bench',
  DONE: 'done',
  CANCELLED: 'given up',
} as const;

function JobRefs({ v, linked }: { v: View; linked: boolean }) {
  if (v.jobs.length === 0) return null;
  return (
    <section>
      <h3>Jobs</h3>
      <ul className="plain">
        {v.jobs.map((j) => (
          <li key={j.id}>
            {linked ? <Link to={`/jobs/${j.id}`}>Job {j.id}</Link> : `Job ${j.id}`},{' '}
            {STAGES[j.stage]}
            {j.completedOn && ` ${formatDate(j.completedOn)} at ${formatKm(j.completedKm ?? 0)}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Log({ v }: { v: View }) {
  return (
    <section>
      <h3>Log</h3>
      <ul className="plain log">
        {v.log.map((l, i) => (
          <li key={i}>
            <span>
              {l.what}
              {(l.before || l.after) && ': '}
              {l.before && l.after ? `${l.before}, now ${l.after}` : l.after || l.before}
            </span>
            <span className="second">
              {l.by}, {formatMoment(l.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

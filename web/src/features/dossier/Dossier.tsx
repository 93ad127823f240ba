import { useQuery } from '@tanstack/react-query';
import { Button, Dropdown } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { StatusSwatch } from '../../drawing/marks';
import { capital, formatDate } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Aftercare, Story } from './Aftercare';
import { BreakdownForm } from './BreakdownForm';
import { dossierQuery, useStartJob } from './dossierQueries';
import { EvidenceForm } from './EvidenceForm';
import { RenewalForm, StateForm, TimingForm } from './FileForms';
import { CallForm, DeclineForm, TripForm } from './OwnerForms';
import { ReadingForm } from './ReadingForm';
import { Evidence, JobRefs, Log, Readings, Renewals, Wishes } from './Record';
import { WhatIf } from './WhatIf';
import { Conditions, Items, Reasons, Usage } from './Why';

const FORMS = {
  reading: ReadingForm,
  evidence: EvidenceForm,
  breakdown: BreakdownForm,
  call: CallForm,
  decline: DeclineForm,
  trip: TripForm,
  renewal: RenewalForm,
  state: StateForm,
  timing: TimingForm,
} as const;

export type DossierForm = keyof typeof FORMS;
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
      startJob.mutate({ vehicleId });
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
  const Form = form && FORMS[form];
  const first = (
    <>
      <header className="dossier-head">
        <Title className="title">
          <span className="registration">{v.registration}</span> {v.makeModel}
        </Title>
        <p className="sentence">
          <StatusSwatch status={v.status} /> <b>{v.statusWords}.</b> {v.sentence}
        </p>
        {wide && <h2 className="unseen">How it stands and why</h2>}
        {v.state.kind !== 'IN_USE' && (
          <p className="sentence">
            <b>{capital(v.state.words)}</b>
            {v.state.since && ` since ${formatDate(v.state.since)}`}.
          </p>
        )}
        {v.unjudged && (
          <p className="warning-note" role="status">
            This cannot be judged: {v.unjudged}. The vehicle stands as if that were not on file
            {me.readsOnly ? '.' : '; put it right below.'}
          </p>
        )}
        {(v.aside || v.callBack) && (
          <p className="sentence">
            {v.callBack ? 'A call was promised for today.' : `Set aside: ${v.aside}.`}
          </p>
        )}
        <p className="contact">
          <span>
            {v.ownerId !== undefined && me.desk ? (
              <Link to={`/owners/${v.ownerId}`}>{v.ownerName}</Link>
            ) : (
              v.ownerName
            )}
            {v.fleet && v.fleet !== v.ownerName && `, ${v.fleet}`}
            {v.fleetContact && <span className="second">{v.fleetContact}</span>}
          </span>
          <a className="phone" href={`tel:${v.ownerPhone.replaceAll(' ', '')}`}>
            {v.ownerPhone}
          </a>
        </p>
      </header>
      {v.window ? (
        <WhatIf vehicleId={v.id} window={v.window} today={me.today} usage={v.usage} />
      ) : (
        <p className="empty">No engine family on file, so there is no window to draw.</p>
      )}
      <Actions
        v={v}
        form={form}
        onForm={onForm}
        onJob={() => startJob.mutate({ vehicleId: v.id })}
        onInspect={() => startJob.mutate({ vehicleId: v.id, inspection: true })}
        busy={startJob.isPending}
      />
      <ProblemNote error={startJob.error} />
      {Form && <Form key={form} v={v} today={me.today} onClose={() => onForm()} />}
    </>
  );
  const reasons = <Reasons v={v} currency={me.currency} />;
  const rest = (
    <>
      <Aftercare v={v} bench={!me.readsOnly} />
      <Items v={v} />
      <Evidence v={v} editable={me.desk} bench={!me.readsOnly} />
      <Wishes v={v} editable={me.desk} />
      <Renewals v={v} linked={!me.readsOnly} />
      <Readings v={v} editable={me.desk} />
      <Usage v={v} currency={me.currency} />
      <Conditions v={v} editable={me.desk} />
      <Story v={v} linked={!me.readsOnly} />
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
  onInspect,
  busy,
}: {
  v: View;
  form?: DossierForm;
  onForm: (form?: DossierForm) => void;
  onJob: () => void;
  onInspect: () => void;
  busy: boolean;
}) {
  const me = useMe();
  const navigate = useNavigate();
  if (me.readsOnly) return null;
  const toggle = (f: DossierForm) => onForm(form === f ? undefined : f);
  return (
    <div className="actions">
      {me.desk && v.openJobId === undefined && v.family && (
        <>
          <Button type="primary" onClick={onJob} loading={busy}>
            Build the job
          </Button>
          <button className="action" onClick={onInspect} disabled={busy}>
            Inspect first
          </button>
        </>
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
      {me.bench && !me.desk && (
        <button
          className="action"
          aria-expanded={form === 'breakdown'}
          onClick={() => toggle('breakdown')}
        >
          It broke down
        </button>
      )}
      {me.desk && (
        <>
          <button className="action" aria-expanded={form === 'call'} onClick={() => toggle('call')}>
            Call
          </button>
          <Dropdown
            trigger={['click']}
            menu={{
              items: [
                ...(
                  [
                    ['breakdown', 'It broke down'],
                    ['decline', 'Declined by the owner'],
                    ['trip', 'Known trip'],
                    ...(v.items.length > 0 ? [['renewal', 'Renewal on record']] : []),
                    ...(me.manages ? [['timing', 'When to act on this vehicle']] : []),
                    ['state', 'Laid up, sold, scrapped'],
                  ] as [DossierForm, string][]
                ).map(([key, label]) => ({ key, label, onClick: () => onForm(key) })),
                {
                  key: 'details',
                  label: 'Change its details',
                  onClick: () => navigate(`/vehicles/${v.id}/details`),
                },
              ],
            }}
          >
            <button className="action">More</button>
          </Dropdown>
        </>
      )}
    </div>
  );
}

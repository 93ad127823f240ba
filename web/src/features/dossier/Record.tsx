import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { capital, formatDate, formatKm, formatMoment, formatNumber } from '../../shared/format';
import { useOutside } from '../../shared/outside';
import { ProblemNote } from '../../shared/ProblemNote';
import {
  useCancelTrip,
  useMarkReading,
  useReadFaultCodes,
  useReplacement,
  useWithdraw,
  useWithdrawDecline,
} from './dossierQueries';

type View = Schemas['DossierView'];

/** What was found on it, and what that asks for. */
export function Evidence({ v, editable, bench }: { v: View; editable: boolean; bench: boolean }) {
  const codes = useReadFaultCodes(v.id);
  const { faultCodeReader } = useOutside();
  const [withdrawing, setWithdrawing] = useState<number>();
  const [why, setWhy] = useState('');
  const withdraw = useWithdraw(v.id, () => {
    setWithdrawing(undefined);
    setWhy('');
  });
  return (
    <section>
      <h3>
        Evidence
        {bench && faultCodeReader && (
          <button className="link beside" onClick={() => codes.mutate()} disabled={codes.isPending}>
            Read fault codes
          </button>
        )}
      </h3>
      <ProblemNote error={codes.error} />
      {codes.data && (
        <p role="status">
          {codes.data.simulated && 'Simulated: a stand-in answers for the reader. '}
          {codes.data.codes.length === 0 && 'It found no fault codes.'}
          {codes.data.codes.map((c) => (
            <span className="second" key={c.code}>
              {c.code}: {c.meaning ?? 'does not speak of the timing drive'}
              {c.recorded && ', recorded as simulated'}
            </span>
          ))}
        </p>
      )}
      {v.evidence.length === 0 && <p className="hint">Nothing found so far.</p>}
      <ul className="plain">
        {v.evidence.map((e) => (
          <li key={e.id} className={e.endedOn ? 'ended' : ''}>
            <span>
              {capital(e.words)}
              {e.item && `, on the ${e.item}`}
              {e.effect && `: ${e.effect}`}
              {!e.endedOn && e.advice && <b>. {capital(e.advice)}</b>}
            </span>
            {e.note && <span className="second">{e.note}</span>}
            <span className="second">
              {e.confidence}; found {formatDate(e.found)}, {e.source}, {e.enteredBy}
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

/** What was renewed, when, at which reading and on what proof; the newest first. */
export function Renewals({ v, linked }: { v: View; linked: boolean }) {
  if (v.renewals.length === 0) return null;
  return (
    <section>
      <h3>Renewals</h3>
      <table className="plain">
        <tbody>
          {v.renewals.map((r, i) => (
            <tr key={i}>
              <td>{r.date !== v.renewals[i - 1]?.date && formatDate(r.date)}</td>
              <td className="num">{r.date !== v.renewals[i - 1]?.date && formatKm(r.km)}</td>
              <td>
                {r.item}
                {r.part && <span className="second registration">{r.part}</span>}
              </td>
              <td>
                {r.grade}
                {r.proof && <span className="second">{r.proof}</span>}
                <span className="second">
                  {r.jobId !== undefined && linked ? (
                    <Link to={`/jobs/${r.jobId}`}>job {r.jobId}</Link>
                  ) : (
                    r.enteredBy
                  )}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What the owner was told and wished, and the journeys that are known. */
export function Wishes({ v, editable }: { v: View; editable: boolean }) {
  const withdraw = useWithdrawDecline(v.id);
  const cancel = useCancelTrip(v.id);
  if (v.calls.length + v.declines.length + v.trips.length === 0) return null;
  return (
    <section>
      <h3>Calls, wishes, trips</h3>
      <ProblemNote error={withdraw.error ?? cancel.error} />
      <ul className="plain">
        {v.trips.map((t) => (
          <li key={`t${t.id}`}>
            {formatKm(t.extraKm)} extra, {formatDate(t.from)} to {formatDate(t.to)}
            {editable && (
              <button className="link beside" onClick={() => cancel.mutate(t.id)}>
                Not going
              </button>
            )}
          </li>
        ))}
        {v.declines.map((d) => (
          <li key={`d${d.id}`} className={d.withdrawnOn ? 'ended' : ''}>
            Declined by {d.declinedBy} until {formatDate(d.until)}
            {!d.withdrawnOn && editable && (
              <button className="link beside" onClick={() => withdraw.mutate(d.id)}>
                No longer
              </button>
            )}
            <span className="second">told: {d.told}</span>
            <span className="second">
              {d.enteredBy}, {formatDate(d.declinedOn)}
              {d.withdrawnOn && `; withdrawn ${formatDate(d.withdrawnOn)}`}
            </span>
          </li>
        ))}
        {v.calls.map((c) => (
          <li key={`c${c.id}`}>
            {c.note}
            <span className="second">
              {c.spokeWith}, {formatDate(c.spokenOn)}, noted by {c.enteredBy}
              {c.askAgainOn && `; ask again on ${formatDate(c.askAgainOn)}`}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the odometer showed; readings that were left out keep their reasons. */
export function Readings({ v, editable }: { v: View; editable: boolean }) {
  const mark = useMarkReading(v.id);
  const replace = useReplacement(v.id);
  return (
    <section>
      <h3>Readings</h3>
      {v.readings.length === 0 && <p className="hint">No reading yet; its class speaks for it.</p>}
      <ProblemNote error={mark.error ?? replace.error} />
      <table className="plain">
        <tbody>
          {v.readings.map((r) => (
            <tr key={r.id} className={r.markedWrong || r.rejected ? 'rejected-row' : ''}>
              <td>{formatDate(r.date)}</td>
              <td className="num">
                {formatKm(r.km)}
                {r.writtenUnit === 'MILES' && (
                  <span className="second">{formatNumber(r.writtenValue)} miles</span>
                )}
              </td>
              <td>
                {r.sourceWords}
                {(r.markedWrong || r.rejected) && (
                  <span className="second">
                    {r.markedWrong ? 'marked wrong' : `left out: ${r.rejected}`}
                  </span>
                )}
                {r.replacement !== undefined && (
                  <span className="second">
                    new odometer: {formatKm(r.replacement)} were on the old one
                  </span>
                )}
              </td>
              <td className="num">
                {editable && (r.replacement !== undefined || r.rejected) && !r.markedWrong && (
                  <button
                    className="link beside"
                    onClick={() =>
                      replace.mutate({
                        readingId: r.id,
                        version: v.version,
                        undo: r.replacement !== undefined,
                      })
                    }
                  >
                    {r.replacement === undefined ? 'Odometer replaced' : 'Not replaced'}
                  </button>
                )}
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
  PLANNED: 'on the board',
  UNDER_WAY: 'at the bench',
  DONE: 'done',
  CANCELLED: 'given up',
} as const;

export function JobRefs({ v, linked }: { v: View; linked: boolean }) {
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

/** Every change: who, when, before, after. */
export function Log({ v }: { v: View }) {
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

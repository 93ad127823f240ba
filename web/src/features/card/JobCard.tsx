import { useQuery } from '@tanstack/react-query';
import { Input } from 'antd';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { Problem } from '../../api/client';
import { BeltPathPicture } from '../../drawing/BeltPathPicture';
import { InterferenceMark } from '../../drawing/marks';
import { formatDate, formatHours, formatKm, formatTime } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { cardQuery, useEnter, type Card, type Step } from './cardQueries';
import { CheckIn } from './CheckIn';
import { Seam } from './Seam';
import { StepEntry } from './StepEntry';

/** The card at the bench: one step in focus, the next in sight, the gates along the seam. */
export default function JobCard() {
  const id = Number(useParams().id);
  const { data: card, error, refetch } = useQuery(cardQuery(id));
  useEffect(() => {
    document.body.classList.add('bench');
    return () => document.body.classList.remove('bench');
  }, []);
  if (error && !card) {
    return (
      <div className="bench-page message">
        <ProblemNote error={error} retry={() => refetch()} />
        <Link to="/jobs">All jobs</Link>
      </div>
    );
  }
  if (!card) return <div className="bench-page message">Reading the card…</div>;
  return <Bench card={card} />;
}

function Bench({ card }: { card: Card }) {
  const me = useMe();
  const enter = useEnter(card);
  const [picked, setPicked] = useState<string>();
  const steps = card.phases.flatMap((p) => p.steps);
  const focus = steps.find((s) => s.code === picked) ?? steps.find((s) => s.code === card.nextStep);
  const phase = focus && card.phases.find((p) => p.steps.includes(focus));
  const after = focus && steps[steps.indexOf(focus) + 1];
  const done = steps.filter((s) => s.answer?.good).length;
  return (
    <div className="bench-page">
      <header className="bench-head">
        <Link className="registration" to={me.desk ? `/vehicles/${card.vehicleId}` : '/jobs'}>
          {card.registration}
        </Link>
        <InterferenceMark value={card.interference} size={18} />
        <span className="bench-what">{card.makeModel}</span>
        <Link className="bench-action" to="/jobs">
          All jobs
        </Link>
        <span className="bench-progress">
          <b>{done}</b> of <b>{steps.length}</b> steps, {formatHours(card.bookMinutes)} h book
        </span>
      </header>
      <Seam
        card={card}
        focus={focus?.code}
        onPick={setPicked}
        onOverride={(gate, words) => enter.mutate({ type: 'OVERRIDE', gate, words })}
      />
      {card.completedOn ? (
        <Signed card={card} />
      ) : !card.started ? (
        <CheckIn card={card} enter={enter} />
      ) : focus && phase ? (
        <Focus
          key={focus.code + (focus.answer?.at ?? '')}
          card={card}
          phase={phase}
          step={focus}
          next={after}
          enter={enter}
          onMove={setPicked}
        />
      ) : (
        <Sign card={card} enter={enter} />
      )}
    </div>
  );
}

type Enter = ReturnType<typeof useEnter>;

function Focus({
  card,
  phase,
  step,
  next,
  enter,
  onMove,
}: {
  card: Card;
  phase: Card['phases'][number];
  step: Step;
  next?: Step;
  enter: Enter;
  onMove: (code?: string) => void;
}) {
  const turns = card.phases.flatMap((p) => p.steps).filter((s) => s.task === 'TURN');
  const turned = turns.filter((s) => s.answer?.good).length;
  const plain = phase.steps.filter((s) => s.task === 'TICK' && !s.answer);
  const moving = step.task === 'TURN' || step.task === 'MARKS';
  const send = (entry: Parameters<Enter['mutate']>[0]) =>
    enter.mutate(entry, { onSuccess: () => onMove(undefined) });
  const problem = enter.error instanceof Problem ? enter.error : undefined;
  return (
    <>
      <section className="bench-step">
        <div className="step-head">
          <div>
            <p className="muted">
              {phase.code} · {phase.title}
            </p>
            <h1>{step.title}</h1>
          </div>
          {step.task === 'TURN' && (
            <div className="big-count">
              <b>{turned} of 2</b>
              <span className="muted">turns by hand</span>
            </div>
          )}
        </div>
        {card.hardStop && (
          <p className="bench-warning">
            Hard stop noted. Back to the locking position; the timing must be proven again.
          </p>
        )}
        {card.attempt > 1 && <p className="muted">Attempt {card.attempt} at the timing.</p>}
        {step.caution && <p className="bench-caution">{step.caution}</p>}
        {moving ? (
          <>
            <BeltPathPicture path={card.path} opposite={step.task === 'TURN' && turned === 1} />
            <p className="muted">
              {card.path.teeth} teeth on the loop. Paint marks on it line up again after{' '}
              <b>{card.turnsUntilPaintReturns} turns</b>; the sprocket marks after two.
            </p>
          </>
        ) : (
          <>
            <PhaseSteps phase={phase} focus={step.code} onPick={onMove} />
            {phase.steps.length < 4 && <BeltPathPicture path={card.path} opposite={false} />}
          </>
        )}
        <footer>
          {next && (
            <p>
              <span className="muted">Next</span> <b>{next.title}</b>
            </p>
          )}
        </footer>
      </section>
      <section className="bench-entry" aria-label="Entry">
        {step.answer && (
          <div className={step.answer.good ? 'answer good' : 'answer bad'}>
            <b>{step.answer.words}</b>
            <span className="muted">
              {step.answer.by}, {formatTime(step.answer.at)}
            </span>
            <button
              className="bench-button"
              onClick={() => send({ type: 'UNDO', step: step.code })}
            >
              Undo
            </button>
          </div>
        )}
        {problem && problem.type !== '/problems/unit-guard' && (
          <p className="bench-warning" role="alert">
            {problem.message}
          </p>
        )}
        {(!step.answer || !step.answer.good) && (
          <StepEntry step={step} busy={enter.isPending} guard={problem} onSend={send} />
        )}
        {plain.length > 1 && step.task === 'TICK' && !step.answer && (
          <button
            className="bench-button wide"
            disabled={enter.isPending}
            onClick={() => send({ type: 'TICK_PHASE', phase: phase.code })}
          >
            All {plain.length} plain steps of this phase
          </button>
        )}
        {step.answer?.good && (
          <button className="bench-button action wide" onClick={() => onMove(undefined)}>
            Go on
          </button>
        )}
      </section>
    </>
  );
}

function PhaseSteps({
  phase,
  focus,
  onPick,
}: {
  phase: Card['phases'][number];
  focus: string;
  onPick: (code: string) => void;
}) {
  return (
    <ol className="phase-steps">
      {phase.steps.map((s) => (
        <li
          key={s.code}
          className={s.answer ? (s.answer.good ? 'done' : 'bad') : ''}
          aria-current={s.code === focus}
        >
          <button onClick={() => onPick(s.code)}>
            <span className="state">
              {s.answer
                ? s.answer.good
                  ? 'done'
                  : 'not right'
                : s.code === focus
                  ? 'now'
                  : 'open'}
            </span>
            <span>
              {s.title}
              {s.answer && s.answer.words !== 'done' && (
                <span className="muted"> {s.answer.words}</span>
              )}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}

function Sign({ card, enter }: { card: Card; enter: Enter }) {
  const [note, setNote] = useState('');
  const shut = card.gates.filter((g) => !g.open);
  const overridden = card.gates.filter((g) => g.overriddenWith);
  return (
    <section className="bench-step sign">
      <h1>{shut.length ? 'A gate is shut' : 'Every step is done'}</h1>
      {shut.map((g) => (
        <p key={g.kind} className="bench-warning">
          {g.words}: {g.waitsFor}
        </p>
      ))}
      <p>Renewed: {card.items.join(', ')}.</p>
      <p>Odometer at check-in {formatKm(card.odometerKm ?? 0)}.</p>
      {overridden.map((g) => (
        <p key={g.kind} className="bench-caution">
          {g.words} was opened by the manager: {g.overriddenWith}
        </p>
      ))}
      <label htmlFor="closing">Words for the record</label>
      <Input.TextArea
        id="closing"
        value={note}
        onChange={(e) => setNote(e.target.value)}
        maxLength={400}
      />
      {enter.error && (
        <p className="bench-warning" role="alert">
          {enter.error.message}
        </p>
      )}
      <button
        className="bench-button action wide"
        disabled={enter.isPending || shut.length > 0}
        onClick={() => enter.mutate({ type: 'COMPLETE', words: note })}
      >
        Sign the job
      </button>
    </section>
  );
}

function Signed({ card }: { card: Card }) {
  return (
    <section className="bench-step sign">
      <h1>Signed</h1>
      <p>
        {card.items.join(', ')} renewed on <b>{formatDate(card.completedOn ?? '')}</b> at{' '}
        <b>{formatKm(card.odometerKm ?? 0)}</b>. Their clocks start again from there.
      </p>
      <p className="next-due">
        Next due{' '}
        <b>
          {[
            card.nextDueOn && formatDate(card.nextDueOn),
            card.nextDueKm && formatKm(card.nextDueKm),
          ]
            .filter(Boolean)
            .join(' or ') || 'by inspection'}
        </b>
        {card.nextDueOn && card.nextDueKm ? ', whichever comes first.' : '.'}
      </p>
      <div className="actions">
        <a
          className="bench-button action"
          href={`/api/jobs/${card.jobId}/card/label.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Print the label
        </a>
        <Link className="bench-button" to={`/vehicles/${card.vehicleId}`}>
          The vehicle’s record
        </Link>
      </div>
      <Record card={card} />
    </section>
  );
}

/** What was measured, counted and looked at, by whom and when; and the gates a manager opened. */
function Record({ card }: { card: Card }) {
  const proof = card.phases
    .flatMap((p) => p.steps)
    .filter((s) => s.answer && s.task !== 'TICK' && s.task !== 'CONFIRM');
  return (
    <table className="record">
      <tbody>
        {card.gates
          .filter((g) => g.overriddenWith)
          .map((g) => (
            <tr key={g.kind}>
              <td>{g.words}</td>
              <td className="bench-caution">opened by the manager: {g.overriddenWith}</td>
              <td />
            </tr>
          ))}
        {proof.map((s) => (
          <tr key={s.code}>
            <td>{s.title}</td>
            <td>
              <b>{s.answer?.words}</b>
              {s.bookNm !== undefined && (
                <span className="muted">
                  {' '}
                  book {s.bookNm} N·m{s.angleDegrees !== undefined && ` + ${s.angleDegrees}°`}
                </span>
              )}
            </td>
            <td className="muted">
              {s.answer?.by}, {formatTime(s.answer?.at ?? '')}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

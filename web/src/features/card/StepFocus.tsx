import { useState } from 'react';
import type { Problem } from '../../api/client';
import { TurningPath } from '../../drawing/TurningPath';
import { formatTime } from '../../shared/format';
import type { Bench, Card, Entry, Step } from './cardQueries';
import { Findings } from './Findings';
import { PartsInHand, ToolPieces } from './PartsInHand';
import { Pictures } from './Signature';
import { stepOfDoing } from './outbox';
import type { Sheet } from './sheets';
import { StepEntry } from './StepEntry';

/** The step in focus: what helps to do it right, and at the thumb's edge what it asks for. */
export function StepFocus({
  card,
  phase,
  step,
  waiting,
  next,
  bench,
  onMove,
  onSheet,
}: {
  card: Card;
  phase: Card['phases'][number];
  step: Step;
  /** Codes of the steps that count as done, because what does them waits to be sent. */
  waiting: Set<string>;
  next?: Step;
  bench: Bench;
  onMove: (code?: string) => void;
  onSheet: (sheet: Sheet) => void;
}) {
  const kept = waiting.has(step.code);
  const plain = phase.steps.filter(
    (s) => s.task === 'TICK' && !s.answer && !s.awaitsOwner && !waiting.has(s.code),
  );
  const send = async (entry: Entry) => {
    // what was refused is told at its own step, wherever the card has gone meanwhile
    onMove((await bench.enter(entry)) ? undefined : step.code);
  };
  // what was refused late is told at the foot of the page, wherever the card has gone meanwhile
  const refused = bench.refused?.late ? undefined : bench.refused;
  const at = refused && stepOfDoing(refused.kept.doing);
  const here = !at || at === step.code;
  const problem = here ? refused?.problem : undefined;
  const open = !kept && (!step.answer || !step.answer.good);
  return (
    <>
      {/* it scrolls where a drawing needs the room, and so by keyboard too */}
      <section className="bench-step" tabIndex={0} aria-label="The step">
        <StepHead card={card} phase={phase} step={step} />
        {step.caution && <p className="bench-caution">{step.caution}</p>}
        {step.notes.length > 0 && (
          <ul className="notes">
            {step.notes.map((n) => (
              <li key={n}>{n}</li>
            ))}
          </ul>
        )}
        {step.why && (
          <p className="why-here">
            <b>Why here</b> {step.why}
          </p>
        )}
        {step.inHand === 'PARTS' && <PartsInHand card={card} bench={bench} />}
        {step.inHand === 'TOOLS' && <ToolPieces card={card} bench={bench} />}
        <Findings card={card} bench={bench} step={step} />
        <div className={isDrawn(card, step) ? 'step-look drawn' : 'step-look'}>
          <Look card={card} phase={phase} step={step} onMove={onMove} />
        </div>
        <Elsewhere card={card} phase={phase} onMove={onMove} />
        <Pictures card={card} step={step.code} />
        <footer>
          {next && (
            <p>
              <span className="muted">Next</span> <b>{next.title}</b>
            </p>
          )}
        </footer>
      </section>
      <section className="bench-entry" aria-label="Entry">
        {step.answer && <Given step={step} busy={bench.busy} onSend={send} />}
        {kept && <p className="bench-caution">Kept on this tablet; not sent yet.</p>}
        {problem && <Objection problem={problem} step={step} bench={bench} onSend={send} />}
        {step.awaitsOwner ? (
          <p className="bench-warning">Waits for the owner’s answer. The other steps go on.</p>
        ) : (
          open && (
            <StepEntry
              jobId={card.jobId}
              step={step}
              fromScratch={card.outOfTime}
              busy={bench.busy}
              problem={problem}
              onSend={(e) => void send(e)}
            />
          )
        )}
        {step.repairs && open && (
          <button
            className="bench-button wide quiet"
            disabled={bench.busy}
            onClick={() => void send({ type: 'UNDO', step: step.code })}
          >
            A mistake: nothing broke off
          </button>
        )}
        {plain.length > 1 && step.task === 'TICK' && open && (
          <button
            className="bench-button wide"
            disabled={bench.busy}
            onClick={() => void send({ type: 'TICK_PHASE', phase: phase.code })}
          >
            All {plain.length} plain steps of this phase
          </button>
        )}
        {(step.answer?.good || kept) && (
          <button className="bench-button action wide" onClick={() => onMove(undefined)}>
            Go on
          </button>
        )}
        <div className="pair aside">
          <button className="bench-button quiet" onClick={() => onSheet('found')}>
            Found…
          </button>
          <button className="bench-button quiet" onClick={() => onSheet('picture')}>
            Picture
          </button>
        </div>
      </section>
    </>
  );
}

function StepHead({
  card,
  phase,
  step,
}: {
  card: Card;
  phase: Card['phases'][number];
  step: Step;
}) {
  const turns = card.phases.flatMap((p) => p.steps).filter((s) => s.task === 'TURN');
  const last = card.attempts[card.attempts.length - 1];
  return (
    <>
      <div className="step-head">
        <div>
          <p className="muted">
            {phase.code} · {phase.title}
          </p>
          <h1>{step.title}</h1>
        </div>
        {step.task === 'TURN' && (
          <div className="big-count">
            <b>
              {turns.filter((s) => s.answer?.good).length} of {turns.length}
            </b>
            <span className="muted">turns by hand</span>
          </div>
        )}
      </div>
      {card.hardStop && (
        <p className="bench-warning">
          Hard stop noted. Back to the locking position; the timing must be proven again.
        </p>
      )}
      {last && (
        <p className="muted">
          Attempt {card.attempt} at the timing. Attempt {last.number}: {last.what}.
        </p>
      )}
    </>
  );
}

const ELSEWHERE = 4;

/** What else nothing keeps waiting; for the eye, the gates keep the line. */
function Elsewhere({
  card,
  phase,
  onMove,
}: {
  card: Card;
  phase: Card['phases'][number];
  onMove: (code: string) => void;
}) {
  const ready = card.phases
    .filter((p) => p !== phase)
    .flatMap((p) => p.steps)
    .filter((s) => s.mayBeDoneNow);
  if (ready.length === 0) return null;
  return (
    <div className="elsewhere">
      <span className="muted">May be done now, elsewhere on the card</span>
      <ul>
        {ready.slice(0, ELSEWHERE).map((s) => (
          <li key={s.code}>
            <button onClick={() => onMove(s.code)}>{s.title}</button>
          </li>
        ))}
      </ul>
      {ready.length > ELSEWHERE && (
        <span className="muted">and {ready.length - ELSEWHERE} more</span>
      )}
    </div>
  );
}

/** Steps at which the loops move or are read: what is asked is seen on the drawing. */
const isDrawn = (card: Card, step: Step) =>
  ['TURN', 'MARKS', 'RUNS', 'MARK_TO_MARK', 'PASSES'].includes(step.task) ||
  step.code === 'belton' ||
  card.loops.some((l) => step.things.includes(l.code));

/** What helps the eye: the loop where the engine moves, the bolts of a pattern, else the steps of the phase. */
function Look({
  card,
  phase,
  step,
  onMove,
}: {
  card: Card;
  phase: Card['phases'][number];
  step: Step;
  onMove: (code: string) => void;
}) {
  if (step.pattern) return <BoltPattern pattern={step.pattern} />;
  if (!isDrawn(card, step)) {
    return (
      <>
        {phase.steps.length > 1 && <PhaseSteps phase={phase} focus={step.code} onPick={onMove} />}
        {phase.steps.length < 3 && <Loops card={card} step={step} teethOf={() => 0} />}
      </>
    );
  }
  const crank = (path: Path) => path.pulleys.find((p) => p.role === 'CRANK')?.teeth ?? 0;
  const turns = step.turn === 2 ? 1 : step.gate === 'REFERENCES_TRUE' ? 2 : 0;
  return (
    <>
      <Loops card={card} step={step} teethOf={(path) => turns * crank(path)} />
      <p className="muted">
        {card.loops.length > 0
          ? card.loops.map((l) => `${l.name}: ${l.path.teeth} ${l.path.counted}`).join(', ') + '. '
          : card.path && `${card.path.teeth} ${card.path.counted} on the loop. `}
        {card.turnsUntilPaintReturns !== undefined && (
          <>
            Paint marks on {card.loops.length > 0 ? 'all of them' : 'it'} line up again after{' '}
            <b>{card.turnsUntilPaintReturns} turns</b>; the marks of the wheels after two.
          </>
        )}
      </p>
    </>
  );
}

type Path = NonNullable<Card['path']>;

/** The loop the step is done to where the engine has several, else all of them side by side. */
function Loops({
  card,
  step,
  teethOf,
}: {
  card: Card;
  step: Step;
  teethOf: (path: Path) => number;
}) {
  if (card.loops.length === 0)
    return card.path ? (
      <TurningPath path={card.path} teeth={teethOf(card.path)} />
    ) : (
      <p className="muted">No drawing of this engine is on file.</p>
    );
  const own = card.loops.filter((l) => step.things.includes(l.code));
  return (
    <div className="card-loops">
      {(own.length > 0 ? own : card.loops).map((l) => (
        <figure key={l.code}>
          <TurningPath path={l.path} teeth={teethOf(l.path)} />
          <figcaption>{l.name}</figcaption>
        </figure>
      ))}
    </div>
  );
}

function BoltPattern({ pattern }: { pattern: NonNullable<Step['pattern']> }) {
  const r = 80;
  return (
    <svg
      className="bolt-pattern"
      viewBox="-120 -120 240 240"
      role="img"
      aria-label={`Tighten in this order: ${pattern.order.join(', ')}`}
    >
      <circle r={r} className="ring" />
      {Array.from({ length: pattern.bolts }, (_, i) => {
        const a = (2 * Math.PI * i) / pattern.bolts - Math.PI / 2;
        return (
          <g key={i} transform={`translate(${r * Math.cos(a)} ${r * Math.sin(a)})`}>
            <circle r="20" className="bolt" />
            <text textAnchor="middle" dy="7">
              {pattern.order.indexOf(i + 1) + 1}
            </text>
          </g>
        );
      })}
      <text textAnchor="middle" dy="6">
        {pattern.done} of {pattern.passes}
      </text>
    </svg>
  );
}

/** What was answered, what it points at, and the ways on from it. */
function Given({
  step,
  busy,
  onSend,
}: {
  step: Step;
  busy: boolean;
  onSend: (entry: Entry) => Promise<void>;
}) {
  const [reason, setReason] = useState('');
  const [accepting, setAccepting] = useState(false);
  const answer = step.answer;
  if (!answer) return null;
  return (
    <div className={answer.good ? 'answer good' : 'answer bad'}>
      <b>{answer.words}</b>
      {answer.hint && <span className="bench-caution">{answer.hint}</span>}
      <span className="muted">
        {answer.by}, {formatTime(answer.at)}
      </span>
      <button
        className="bench-button"
        disabled={busy}
        onClick={() => void onSend({ type: 'UNDO', step: step.code })}
      >
        Undo
      </button>
      {step.mayDeviate && !accepting && (
        <button className="bench-button" onClick={() => setAccepting(true)}>
          Let it pass with a reason
        </button>
      )}
      {accepting && (
        <>
          <label htmlFor="deviation">Why; this is printed on the record</label>
          <textarea
            id="deviation"
            rows={2}
            maxLength={400}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <button
            className="bench-button action"
            disabled={busy || reason.trim() === ''}
            onClick={() => void onSend({ type: 'DEVIATE', step: step.code, words: reason })}
          >
            Let it pass
          </button>
        </>
      )}
    </div>
  );
}

/** Why an entry was not taken. Where somebody else was first, both values, and the way to put this one in place. */
function Objection({
  problem,
  step,
  bench,
  onSend,
}: {
  problem: Problem;
  step: Step;
  bench: Bench;
  onSend: (entry: Entry) => Promise<void>;
}) {
  if (problem.type === '/problems/unit-guard') return null;
  const doing = bench.refused?.kept.doing;
  const mine = doing && 'entry' in doing && stepOfDoing(doing) === step.code && doing.entry;
  const conflict = problem.status === 409 && mine;
  return (
    <div className="objection" role="alert">
      <p className="bench-warning">{problem.message}</p>
      {conflict && mine && (
        <div className="pair">
          <button className="bench-button" onClick={bench.dismiss}>
            Theirs stands
          </button>
          <button className="bench-button" disabled={bench.busy} onClick={() => void onSend(mine)}>
            Put mine in its place
          </button>
        </div>
      )}
    </div>
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
            <span className="state">{stateOf(s, focus)}</span>
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

function stateOf(s: Step, focus: string): string {
  if (s.answer) return s.answer.good ? 'done' : 'not right';
  if (s.awaitsOwner) return 'waits';
  if (s.code === focus) return 'now';
  return s.mayBeDoneNow ? 'may go now' : 'to do';
}

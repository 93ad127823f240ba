import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { InterferenceMark } from '../../drawing/marks';
import { formatHours, formatTime } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { BenchMenu } from './BenchMenu';
import { cardQuery, useBench, type Bench, type Card, type Step } from './cardQueries';
import { CheckIn } from './CheckIn';
import { Findings } from './Findings';
import { inWords, noAnswer, stepOfDoing, waitingSteps } from './outbox';
import { Sign, Signed } from './Signature';
import { Seam } from './Seam';
import type { Sheet } from './sheets';
import { StepFocus } from './StepFocus';

/** The card at the bench: one step in focus, the next in sight, the gates along the seam. */
export default function JobCard() {
  const id = Number(useParams().id);
  const { data: card, error, fetchStatus, dataUpdatedAt, refetch } = useQuery(cardQuery(id));
  useEffect(() => {
    document.body.classList.add('bench');
    return () => document.body.classList.remove('bench');
  }, []);
  if (error && !card) {
    return (
      <main className="bench-page message">
        <ProblemNote error={error} retry={() => refetch()} />
        <Link to="/jobs">All jobs</Link>
      </main>
    );
  }
  if (!card) return <main className="bench-page message">Reading the card…</main>;
  const lost = fetchStatus === 'paused' || (error !== null && noAnswer(error));
  return (
    <Page
      key={card.jobId}
      card={card}
      lostSince={lost ? new Date(dataUpdatedAt).toISOString() : undefined}
    />
  );
}

/** @param lostSince when the card was last read, where the server does not answer now */
function Page({ card, lostSince }: { card: Card; lostSince?: string }) {
  const me = useMe();
  const bench = useBench(card);
  const [picked, setPicked] = useState<string>();
  const [sheet, openSheet] = useState<Sheet>();
  const [seam, setSeam] = useState(false);
  const setSheet = (next?: Sheet) => {
    bench.dismiss();
    openSheet(next);
  };
  const steps = card.phases.flatMap((p) => p.steps);
  const waiting = waitingSteps(bench.kept, card);
  const isOpen = (s: Step) => !s.settled && !waiting.has(s.code);
  // what is kept on the tablet counts as done for the eye; the server decides when it is sent
  const nextOpen =
    waiting.size === 0 ? steps.find((s) => s.code === card.nextStep) : steps.find(isOpen);
  const focus = steps.find((s) => s.code === picked) ?? nextOpen;
  const phase = focus && card.phases.find((p) => p.steps.includes(focus));
  const after = focus && steps.slice(steps.indexOf(focus) + 1).find(isOpen);
  const book = card.bookMinutes + card.contingencyMinutes;
  const signed = card.completedOn !== undefined;
  const noted = bench.kept.length > 0 || bench.refused?.late || bench.since || lostSince;
  return (
    <main
      className={['bench-page', seam && 'seam-open', noted && 'has-note'].filter(Boolean).join(' ')}
      aria-busy={bench.busy}
    >
      <header className="bench-head">
        <Link className="registration" to={me.desk ? `/vehicles/${card.vehicleId}` : '/jobs'}>
          {card.registration}
        </Link>
        <InterferenceMark value={card.interference} size={18} />
        <span className="bench-what">
          {card.makeModel}
          <span className="muted">
            {card.outOfTime &&
              (card.outOfTimePlanned ? ' timed from scratch' : ' found out of time')}
          </span>
        </span>
        <button
          className="bench-action seam-toggle"
          aria-expanded={seam}
          onClick={() => setSeam(!seam)}
        >
          Phases
        </button>
        {card.started && !signed && (
          <button
            className="bench-action"
            aria-expanded={sheet !== undefined}
            onClick={() => setSheet(sheet ? undefined : 'menu')}
          >
            More
          </button>
        )}
        <Link className="bench-action" to="/jobs">
          Jobs
        </Link>
        <span className="bench-progress">
          <b>{formatHours(card.actualMinutes ?? card.worked.minutes)}</b> of{' '}
          <b>{formatHours(book)}</b> h book
        </span>
        {bench.kept.length > 0 && <b className="kept-count">{bench.kept.length} kept here</b>}
      </header>
      <KeptNote
        bench={bench}
        lostSince={lostSince}
        onPick={(code) => {
          setPicked(code);
          setSheet(undefined);
        }}
      />
      <Seam
        card={card}
        focus={focus?.code}
        onPick={(code) => {
          setPicked(code);
          setSheet(undefined);
          setSeam(false);
        }}
        onOverride={(gate, words) => void bench.enter({ type: 'OVERRIDE', gate, words })}
      />
      {signed ? (
        <Signed card={card} />
      ) : !card.started ? (
        <CheckIn card={card} bench={bench} />
      ) : sheet ? (
        <BenchMenu card={card} step={focus} bench={bench} sheet={sheet} onSheet={setSheet} />
      ) : card.paused ? (
        <Waiting card={card} bench={bench} onMore={() => setSheet('menu')} />
      ) : focus && phase ? (
        <StepFocus
          key={focus.code + (focus.answer?.at ?? '') + (focus.pattern?.done ?? '')}
          card={card}
          phase={phase}
          step={focus}
          waiting={waiting}
          next={after}
          bench={bench}
          onMove={setPicked}
          onSheet={setSheet}
        />
      ) : (
        <Sign card={card} bench={bench} />
      )}
    </main>
  );
}

/** Since when the server has not answered, what is kept on the tablet, and what was not taken of it afterwards. */
function KeptNote({
  bench,
  lostSince,
  onPick,
}: {
  bench: Bench;
  lostSince?: string;
  onPick: (step: string) => void;
}) {
  const late = bench.refused?.late ? bench.refused : undefined;
  const step = late && stepOfDoing(late.kept.doing);
  const since = bench.since ?? lostSince;
  if (bench.kept.length === 0 && !late && !since) return null;
  return (
    <div className="kept-note">
      {late && (
        <div role="alert">
          Not taken ({inWords(late.kept)}): {late.problem.message}{' '}
          {step && (
            <button className="bench-action" onClick={() => onPick(step)}>
              Enter it anew
            </button>
          )}{' '}
          <button className="bench-action" onClick={bench.leave}>
            Leave it
          </button>
        </div>
      )}
      {since && bench.kept.length === 0 && (
        <div role="status">
          The server has not answered since {formatTime(since)}. What is entered is kept on this
          tablet.
        </div>
      )}
      {bench.kept.length > 0 && (
        <div role="status">
          Kept on this tablet: {bench.kept.length} {bench.kept.length === 1 ? 'entry' : 'entries'}{' '}
          <span className="muted">
            ({bench.kept.map((k) => inWords(k)).join('; ')}), sent
            {bench.waitsFor
              ? ` when ${bench.waitsFor} is signed in here again.`
              : since
                ? ` when the server answers; it has not since ${formatTime(since)}.`
                : ' one after the other.'}
          </span>
          {bench.inMemoryOnly && (
            <b> This tablet’s storage is full: leave this page open until all is sent.</b>
          )}
        </div>
      )}
    </div>
  );
}

function Waiting({ card, bench, onMore }: { card: Card; bench: Bench; onMore: () => void }) {
  return (
    <section className="bench-step sign">
      <h1>The job waits for {card.paused?.whyWords}</h1>
      {card.paused?.words && <p>{card.paused.words}</p>}
      <Findings card={card} bench={bench} />
      <div className="actions">
        <button
          className="bench-button action"
          disabled={bench.busy}
          onClick={() => void bench.enter({ type: 'RESUME' })}
        >
          Go on with it
        </button>
        <button className="bench-button" onClick={onMore}>
          Something else
        </button>
      </div>
    </section>
  );
}

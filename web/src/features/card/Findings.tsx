import { useState } from 'react';
import type { Problem } from '../../api/client';
import { useMe } from '../../shared/me';
import { MoreWork, Words } from './BenchMenu';
import type { Bench, Card, Step } from './cardQueries';

/** What the bench has found asks for lines; the lines ask the owner; only those steps wait. */
export function Findings({ card, bench, step }: { card: Card; bench: Bench; step?: Step }) {
  const { currency } = useMe();
  const [problem, setProblem] = useState<Problem>();
  const [asking, setAsking] = useState(false);
  const [own, setOwn] = useState<string>();
  const ownLines = step ? card.withoutALine : [];
  if (card.offers.length + card.awaiting.length + card.corrections.length + ownLines.length === 0)
    return null;
  return (
    <div className="findings">
      {card.corrections.length > 0 && (
        <details className="corrections">
          <summary>
            <b>The book was corrected</b> since this card was begun: {card.corrections.length}{' '}
            {card.corrections.length === 1 ? 'difference' : 'differences'}. The card stays as it was
            begun.
          </summary>
          <ul>
            {card.corrections.map((c) => (
              <li key={c.words}>{c.words}</li>
            ))}
          </ul>
        </details>
      )}
      {card.offers.map((o) => (
        <div key={o.code} className="offer">
          <span>
            <b>{o.name}</b>{' '}
            <span className="muted">
              +{o.minutes} min. {o.reason}
            </span>
          </span>
          <button
            className="bench-button"
            disabled={bench.busy}
            onClick={() => void bench.act({ lines: [o.code] }).then(setProblem)}
          >
            Add to the job
          </button>
        </div>
      ))}
      {step &&
        ownLines.map((found) => (
          <div key={found}>
            <div className="offer">
              <span>
                <b>{found}</b>{' '}
                <span className="muted">
                  The book has no part for it; it can have a line of its own, with its price.
                </span>
              </span>
              <button
                className="bench-button"
                aria-expanded={own === found}
                onClick={() => setOwn(own === found ? undefined : found)}
              >
                A line for it
              </button>
            </div>
            {own === found && (
              <MoreWork
                step={{ ...step, joints: [] }}
                about={found}
                currency={currency}
                busy={bench.busy}
                onSend={(e) => void bench.enter(e).then((taken) => taken && setOwn(undefined))}
              />
            )}
          </div>
        ))}
      {problem && (
        <p className="bench-warning" role="alert">
          {problem.message}
        </p>
      )}
      {card.awaiting.length > 0 && (
        <div className="offer">
          <span>
            <b>The owner has not answered:</b> {card.awaiting.map((a) => a.name).join(', ')}.{' '}
            <span className="muted">
              What does not hang on it goes on. {card.ownerName}, {card.ownerPhone}
            </span>
          </span>
          <button
            className="bench-button"
            aria-expanded={asking}
            onClick={() => setAsking(!asking)}
          >
            Their answer
          </button>
        </div>
      )}
      {asking && card.awaiting.length > 0 && (
        <OwnerAnswer card={card} bench={bench} onDone={() => setAsking(false)} />
      )}
    </div>
  );
}

function OwnerAnswer({ card, bench, onDone }: { card: Card; bench: Bench; onDone: () => void }) {
  const [problem, setProblem] = useState<Problem>();
  const [saidBy, setSaidBy] = useState(card.ownerName);
  const [warning, setWarning] = useState('');
  const [signed, setSigned] = useState(false);
  const [agreed, setAgreed] = useState(true);
  const send = async (agreed: boolean, insist = false) => {
    setAgreed(agreed);
    const lines = card.awaiting.map((a) => a.code);
    const wrong = await bench.act({ owner: { lines, agreed, saidBy, warning, signed, insist } });
    setProblem(wrong);
    if (!wrong) onDone();
  };
  return (
    <div className="owner-answer">
      <label htmlFor="said-by">Who said it, on the phone</label>
      <input
        id="said-by"
        value={saidBy}
        maxLength={120}
        onChange={(e) => setSaidBy(e.target.value)}
      />
      <Words
        id="told"
        label="What was told of the risk, where they leave it"
        value={warning}
        onChange={setWarning}
      />
      <label className="tick">
        <input type="checkbox" checked={signed} onChange={(e) => setSigned(e.target.checked)} /> A
        decline was signed
      </label>
      {problem && (
        <p className="bench-warning" role="alert">
          {problem.message}
        </p>
      )}
      {problem?.suggestion === 'insist' && (
        <button
          className="bench-button"
          disabled={bench.busy}
          onClick={() => void send(agreed, true)}
        >
          Note it all the same
        </button>
      )}
      <div className="pair">
        <button
          className="bench-button action"
          disabled={bench.busy}
          onClick={() => void send(true)}
        >
          They agree
        </button>
        <button className="bench-button" disabled={bench.busy} onClick={() => void send(false)}>
          They leave it
        </button>
      </div>
    </div>
  );
}

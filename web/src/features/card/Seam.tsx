import { Modal, Input } from 'antd';
import { useState } from 'react';
import type { Card } from './cardQueries';

type Gate = Card['gates'][number];

/** The phases along a toothed seam, one tooth a step; a gate is a bar across it that says what opens it. */
export function Seam({
  card,
  focus,
  onPick,
  onOverride,
}: {
  card: Card;
  focus?: string;
  onPick: (step: string) => void;
  onOverride: (gate: Gate['kind'], words: string) => void;
}) {
  const [opening, setOpening] = useState<Gate>();
  const [words, setWords] = useState('');
  const current = card.phases.find((p) => p.steps.some((s) => s.code === focus));
  const leading = card.phases.findIndex((p) => !p.done);
  const folded = leading > 3 ? leading - 2 : 0;
  const [unfolded, setUnfolded] = useState(false);
  const shown = unfolded ? card.phases : card.phases.slice(folded);
  const gateAfter = (step: string) => card.gates.filter((g) => g.afterStep === step);
  return (
    <nav className="seam" aria-label="Phases and gates">
      {!unfolded && folded > 0 && (
        <button className="seam-phase done folded" onClick={() => setUnfolded(true)}>
          <Teeth count={8} state="done" />
          <span>
            <b>{folded} phases done</b>
            <span className="muted">show them</span>
          </span>
        </button>
      )}
      {shown.map((p) => {
        const state = p.done ? 'done' : p === current ? 'now' : 'later';
        const left = p.steps.filter((s) => !s.settled).length;
        const gates = p.steps.flatMap((s) => gateAfter(s.code));
        return (
          <div key={p.code}>
            <button
              className={`seam-phase ${state}`}
              aria-current={state === 'now' ? 'step' : undefined}
              onClick={() => onPick((p.steps.find((s) => !s.settled) ?? p.steps[0]!).code)}
            >
              <Teeth count={p.steps.length} done={p.steps.length - left} state={state} />
              <span>
                <b>{p.title}</b>
                <span className="muted">
                  {p.done ? 'done' : state === 'now' ? `now, ${left} to do` : `${left} to do`}
                  {p.minutes !== undefined && p.minutes > 0 && `, ${p.minutes} min`}
                </span>
              </span>
            </button>
            {gates
              .filter((g) => !g.open || g.overriddenWith)
              .map((g) => (
                <div
                  key={g.kind}
                  className={g.open ? 'gate open' : state === 'later' ? 'gate far' : 'gate'}
                >
                  <span>
                    {g.open ? (
                      <>Opened with words: {g.words}</>
                    ) : (
                      <>
                        <b>Gate: {g.words}</b>
                        {state !== 'later' && <span className="waits">{g.waitsFor}</span>}
                      </>
                    )}
                  </span>
                  {!g.open &&
                    g.overridable &&
                    card.mayOverride &&
                    card.started &&
                    state !== 'later' && (
                      <button className="bench-action" onClick={() => setOpening(g)}>
                        Open with words
                      </button>
                    )}
                </div>
              ))}
          </div>
        );
      })}
      <Modal
        title={`Open “${opening?.words}” without its step?`}
        open={opening !== undefined}
        okText="Open it with these words"
        cancelText="Leave it shut"
        okButtonProps={{ disabled: words.trim() === '' }}
        onCancel={() => setOpening(undefined)}
        onOk={() => {
          if (opening) onOverride(opening.kind, words);
          setOpening(undefined);
          setWords('');
        }}
      >
        <label htmlFor="override-words">Why; this is printed on the record</label>
        <Input.TextArea
          id="override-words"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
      </Modal>
    </nav>
  );
}

function Teeth({ count, done = count, state }: { count: number; done?: number; state: string }) {
  const height = Math.max(44, count * 14);
  const pitch = height / count;
  return (
    <svg
      className={`teeth ${state}`}
      width="30"
      height={height}
      viewBox={`0 0 30 ${height}`}
      aria-hidden="true"
    >
      <path className="spine" d={`M0.5 0V${height}M11.5 0V${height}`} />
      {Array.from({ length: count }, (_, i) => (
        <path
          key={i}
          className={i < done ? 'tooth done' : 'tooth'}
          d={`M12 ${i * pitch + 1.5}L28 ${i * pitch + pitch * 0.24}V${i * pitch + pitch * 0.76}L12 ${(i + 1) * pitch - 1.5}Z`}
        />
      ))}
    </svg>
  );
}

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Radio, Select } from 'antd';
import { Link } from 'react-router';
import { TurningPath } from '../../drawing/TurningPath';
import { ProblemNote } from '../../shared/ProblemNote';
import { enginesQuery } from '../engines/engineQueries';
import { Course } from './Course';
import { WhatNext } from './WhatNext';
import { roundQuery, useMarks, type Answers, type Round } from './practiceQueries';

const STEPS = [
  'Bring the marks in',
  'Lay the belt on',
  'Find the tooth that is out',
  'Decide after two turns',
];

/** A trainer for apprentices; nothing of it reaches a real job. */
export default function Practice() {
  const { data: engines, error } = useQuery(enginesQuery);
  const families = engines?.filter((f) => f.drawn);
  const [family, setFamily] = useState('');
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 1_000_000));
  const code = families?.some((f) => f.code === family) ? family : families?.[0]?.code || '';
  const [next, setNext] = useState(false);
  const round = useQuery({ ...roundQuery(code, seed), enabled: code !== '' && !next });
  return (
    <div className="page practice">
      <div className="page-head">
        <h1>Practice</h1>
        <Link className="action" to="/calculators">
          Calculators
        </Link>
      </div>
      <p className="hint">
        {next
          ? 'On the card of any family, never on a real job. The answers are the laws by which cards are proven.'
          : 'On the drawn loop, never on a real job. The scoring is the same geometry that the cards use.'}
      </p>
      <Radio.Group
        aria-label="What to practise"
        value={next}
        options={[
          { value: false, label: 'The loop and its marks' },
          { value: true, label: 'What comes next' },
        ]}
        onChange={(e) => setNext(e.target.value as boolean)}
      />
      <Course
        onGo={(code, whatNext) => {
          setFamily(code);
          setNext(whatNext);
          setSeed(seed + 1);
        }}
      />
      {next ? (
        <WhatNext family={family} onFamily={setFamily} />
      ) : (
        <>
          {families?.length === 0 && (
            <p>No engine family with a drawing is on file yet; a drawing is typed in its book.</p>
          )}
          <div className="practice-choice">
            <label htmlFor="practice-family">Engine family</label>
            <Select
              id="practice-family"
              value={code || undefined}
              onChange={(v: string) => setFamily(v)}
              options={families?.map((f) => ({ value: f.code, label: f.name }))}
            />
            <button className="action" onClick={() => setSeed(seed + 1)}>
              Another round
            </button>
          </div>
          <ProblemNote error={error ?? round.error} retry={() => round.refetch()} />
          {round.data && <OneRound key={`${code} ${seed}`} round={round.data} />}
        </>
      )}
    </div>
  );
}

function OneRound({ round }: { round: Round }) {
  const [at, setAt] = useState(0);
  const [turns, setTurns] = useState<number[]>([]);
  const [order, setOrder] = useState<string[]>([]);
  const [wheel, setWheel] = useState('');
  const [way, setWay] = useState(0);
  const [decision, setDecision] = useState<Answers['decision']>();
  const marks = useMarks();
  const moved = turns.reduce((a, b) => a + b, 0);
  const name = (code: string) =>
    round.path.pulleys.find((p) => p.code === code)?.name.toLowerCase() ?? code;
  const finish = (d: Answers['decision']) => {
    setDecision(d);
    marks.mutate({
      family: round.family,
      seed: round.seed,
      turns,
      order,
      wheelOut: wheel,
      teethOut: way,
      decision: d,
    });
  };
  return (
    <div className="round">
      <ol className="round-steps">
        {STEPS.map((s, i) => (
          <li key={s} aria-current={i === at && !marks.data ? 'step' : undefined}>
            {s}
            {marks.data && (
              <span className="unit">
                {' '}
                {marks.data.parts[i]?.points} of {marks.data.parts[i]?.most}
              </span>
            )}
          </li>
        ))}
      </ol>
      <div className="round-drawing">
        {at === 0 && <TurningPath path={round.path} teeth={moved - round.startTeeth} />}
        {at === 1 && <TurningPath path={round.path} teeth={0} hideRuns />}
        {at === 2 && (
          <TurningPath
            path={round.path}
            teeth={0}
            out={{ wheel: round.wheelOut, degrees: round.degreesOut }}
          />
        )}
        {at === 3 && (
          <TurningPath path={round.path} teeth={2 * round.crankTeeth} note={round.situation} />
        )}
      </div>
      <div className="round-task">
        {marks.data ? (
          <Result marks={marks.data} />
        ) : at === 0 ? (
          <>
            <p>
              Turn the crank the running way until every mark stands at its pointer.{' '}
              {round.turningBackDegrees
                ? `Back is allowed by ${round.turningBackDegrees}°.`
                : 'This engine is never turned back.'}
            </p>
            <div className="turn-keys" role="group" aria-label="Turn the crank">
              {[1, 5, Math.round(round.crankTeeth / 4), round.crankTeeth, -1].map((n) => (
                <button key={n} type="button" onClick={() => setTurns([...turns, n])}>
                  {turnWords(n, round.crankTeeth)}
                </button>
              ))}
            </div>
            <p className="unit">
              {moved} teeth so far
              {turns.length > 0 && (
                <button className="link" onClick={() => setTurns([])}>
                  begin again
                </button>
              )}
            </p>
            <button className="primary" onClick={() => setAt(1)}>
              They are in
            </button>
          </>
        ) : at === 1 ? (
          <>
            <p>Touch the wheels in the order the belt is laid on.</p>
            <div className="turn-keys">
              {round.wheels.map((w) => (
                <button
                  key={w}
                  type="button"
                  disabled={order.includes(w)}
                  onClick={() => setOrder([...order, w])}
                >
                  {order.includes(w) && `${order.indexOf(w) + 1}. `}
                  {name(w)}
                </button>
              ))}
            </div>
            <p className="unit">
              {order.map(name).join(', ') || 'nothing yet'}
              {order.length > 0 && (
                <button className="link" onClick={() => setOrder(order.slice(0, -1))}>
                  take the last back
                </button>
              )}
            </p>
            <button
              className="primary"
              disabled={order.length < round.wheels.length}
              onClick={() => setAt(2)}
            >
              It is on
            </button>
          </>
        ) : at === 2 ? (
          <>
            <p>One wheel is a tooth out. Which, and which way? It turns the running way.</p>
            <div className="turn-keys" role="group" aria-label="Wheel">
              {round.path.pulleys
                .filter((p) => p.marked)
                .map((p) => (
                  <button
                    key={p.code}
                    type="button"
                    aria-pressed={wheel === p.code}
                    onClick={() => setWheel(p.code)}
                  >
                    {p.name.toLowerCase()}
                  </button>
                ))}
            </div>
            <div className="turn-keys" role="group" aria-label="Which way">
              {[
                { n: 1, words: 'a tooth ahead' },
                { n: -1, words: 'a tooth behind' },
              ].map((o) => (
                <button
                  key={o.n}
                  type="button"
                  aria-pressed={way === o.n}
                  onClick={() => setWay(o.n)}
                >
                  {o.words}
                </button>
              ))}
            </div>
            <button className="primary" disabled={!wheel || way === 0} onClick={() => setAt(3)}>
              That one
            </button>
          </>
        ) : (
          <>
            <p>
              <b>{round.situation}</b> What now?
            </p>
            <div className="decisions">
              {round.decisions.map((d) => (
                <button
                  key={d.code}
                  type="button"
                  disabled={marks.isPending}
                  aria-pressed={decision === d.code}
                  onClick={() => finish(d.code)}
                >
                  {d.words}
                </button>
              ))}
            </div>
            <ProblemNote error={marks.error} retry={() => decision && finish(decision)} />
          </>
        )}
      </div>
    </div>
  );
}

function Result({ marks }: { marks: NonNullable<ReturnType<typeof useMarks>['data']> }) {
  return (
    <div role="status">
      <p className="figure">
        {marks.points} <span className="unit">of 100</span>
      </p>
      <ul className="marks">
        {marks.parts.map((p) => (
          <li key={p.name} className={p.points === p.most ? '' : 'short'}>
            <b>
              {p.name}: {p.points} of {p.most}
            </b>
            <br />
            {p.words}
          </li>
        ))}
      </ul>
    </div>
  );
}

const turnWords = (n: number, crank: number) =>
  n === crank
    ? '+ 1 turn'
    : `${n < 0 ? '−' : '+'} ${Math.abs(n)} ${Math.abs(n) === 1 ? 'tooth' : 'teeth'}`;

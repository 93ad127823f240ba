import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useState } from 'react';
import { ProblemNote } from '../../shared/ProblemNote';
import { enginesQuery } from '../engines/engineQueries';
import { nextQuery, useNextAnswer, type Question } from './practiceQueries';

/** On any family: so far the work is done, what comes next? The dry run answers, with the law. */
export function WhatNext({
  family,
  onFamily,
}: {
  family: string;
  onFamily: (family: string) => void;
}) {
  const { data: engines } = useQuery(enginesQuery);
  const [seed, setSeed] = useState(() => Math.floor(Math.random() * 1_000_000));
  const [score, setScore] = useState({ right: 0, of: 0 });
  const code = family || engines?.[0]?.code || '';
  const question = useQuery({ ...nextQuery(code, seed), enabled: code !== '' });
  return (
    <>
      <div className="practice-choice">
        <label htmlFor="next-family">Engine family</label>
        <Select
          id="next-family"
          showSearch
          optionFilterProp="label"
          value={code || undefined}
          options={engines?.map((f) => ({ value: f.code, label: f.name }))}
          onChange={(v: string) => {
            onFamily(v);
            setScore({ right: 0, of: 0 });
          }}
        />
        <button className="action" onClick={() => setSeed(seed + 1)}>
          Another question
        </button>
        <span role="status">
          {score.of > 0 && `${score.right} of ${score.of} right, at the first answer`}
        </span>
      </div>
      {engines?.length === 0 && (
        <p>No engine family is on file yet; write one down, or take one in, on Engines.</p>
      )}
      <ProblemNote error={question.error} retry={() => question.refetch()} />
      {question.data && (
        <One
          key={`${code} ${seed}`}
          question={question.data}
          onAnswered={(right) =>
            setScore((s) => ({ right: s.right + (right ? 1 : 0), of: s.of + 1 }))
          }
          onNext={() => setSeed(seed + 1)}
        />
      )}
    </>
  );
}

/** How many of the last steps are shown; the others are folded away. */
const LAST = 6;

function One({
  question,
  onAnswered,
  onNext,
}: {
  question: Question;
  onAnswered: (right: boolean) => void;
  onNext: () => void;
}) {
  const [chosen, setChosen] = useState<string>();
  const answer = useNextAnswer();
  const choose = (choice: string) => {
    setChosen(choice);
    answer.mutate(
      { family: question.family, seed: question.seed, choice },
      { onSuccess: (m) => chosen === undefined && onAnswered(m.right) },
    );
  };
  const folded = Math.max(0, question.done.length - LAST);
  const marks = answer.data;
  return (
    <div className="what-next">
      <section>
        <h2>Done so far</h2>
        {question.done.length === 0 && <p>Nothing yet: the vehicle stands in the bay.</p>}
        {folded > 0 && (
          <details>
            <summary>{folded} steps before these</summary>
            <ol>
              {question.done.slice(0, folded).map((d, i) => (
                <li key={i}>{d}</li>
              ))}
            </ol>
          </details>
        )}
        <ol start={folded + 1}>
          {question.done.slice(folded).map((d, i) => (
            <li key={i}>{d}</li>
          ))}
        </ol>
      </section>
      <section>
        <h2>What comes next?</h2>
        <div className="next-choices">
          {question.choices.map((c) => (
            <button
              key={c.code}
              className={chosen === c.code ? 'action chosen' : 'action'}
              aria-pressed={chosen === c.code}
              disabled={answer.isPending}
              onClick={() => choose(c.code)}
            >
              {c.title}
            </button>
          ))}
        </div>
        <ProblemNote error={answer.error} />
        {marks && (
          <div role="status">
            <p>
              <b>{marks.right ? 'Right: it may be done now.' : 'Not yet.'}</b>
            </p>
            {!marks.right && (
              <ul>
                {marks.broken.map((b) => (
                  <li key={b.words}>
                    {b.words}{' '}
                    <span className="hint">
                      law {b.law}: {b.name.toLowerCase()}
                    </span>
                  </li>
                ))}
              </ul>
            )}
            {marks.right && marks.may.length > 1 && (
              <p>Of these may be done now: {marks.may.join('; ')}.</p>
            )}
            {marks.right && marks.why && <p className="hint">{marks.why}</p>}
            <button className="button" onClick={onNext}>
              Next question
            </button>
          </div>
        )}
      </section>
    </div>
  );
}

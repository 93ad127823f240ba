import { useState } from 'react';
import type { Problem } from '../../api/client';
import type { Entry, Step } from './cardQueries';
import { Keypad } from './Keypad';
import { Measure } from './Measure';
import { MarkToMark } from './MarkToMark';
import { Runs } from './Runs';
import { FileTorque, Tighten } from './Tighten';

interface Props {
  jobId: number;
  step: Step;
  busy: boolean;
  problem?: Problem;
  /** The timing is set from scratch already. */
  fromScratch?: boolean;
  onSend: (entry: Entry) => void;
}

/** What the step in focus asks for, at the thumb's edge. */
export function StepEntry(props: Props) {
  const { step, busy, fromScratch, onSend } = props;
  switch (step.task) {
    case 'TICK':
    case 'CONFIRM':
      return (
        <>
          {step.gate === 'LABEL' && (
            <a
              className="bench-button wide"
              href={`/api/jobs/${props.jobId}/card/label.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              Print the label
            </a>
          )}
          <button
            className="bench-button action wide"
            disabled={busy}
            onClick={() => onSend({ type: 'TICK', step: step.code })}
          >
            {step.task === 'TICK' ? 'Done' : 'Yes, it is so'}
          </button>
          {step.mayDefer && (
            <button
              className="bench-button wide"
              disabled={busy}
              onClick={() => onSend({ type: 'DEFER', step: step.code })}
            >
              Tomorrow, as a recheck
            </button>
          )}
        </>
      );
    case 'INSPECT':
      return <Look {...props} />;
    case 'CHOOSE':
      return <Choose {...props} />;
    case 'COUNT':
      return <Count {...props} />;
    case 'CHECK':
    case 'MARKS':
      return (
        <>
          <Points {...props} />
          {step.gate === 'REFERENCE_FOUND' && step.answer && !step.answer.good && (
            <button
              className="bench-button stop wide"
              disabled={busy}
              onClick={() => onSend({ type: 'OUT_OF_TIME', words: step.answer?.words })}
            >
              Found out of time: set it from scratch
            </button>
          )}
          {step.gate === 'REFERENCE_FOUND' && !step.answer && !fromScratch && (
            <button
              className="bench-button quiet wide"
              disabled={busy}
              onClick={() =>
                onSend({ type: 'OUT_OF_TIME', words: 'head or cams were out', planned: true })
              }
            >
              Head or cams were out: set it from scratch
            </button>
          )}
        </>
      );
    case 'TURN':
      return (
        <>
          <button
            className="bench-button action wide tall"
            disabled={busy}
            onClick={() => onSend({ type: 'TURN', step: step.code })}
          >
            Turn {step.turn} done, no stop
          </button>
          <button
            className="bench-button stop wide"
            disabled={busy}
            onClick={() => onSend({ type: 'HARD_STOP' })}
          >
            Hard stop
          </button>
        </>
      );
    case 'PASSES':
      return (
        <button
          className="bench-button action wide tall"
          disabled={busy}
          onClick={() => onSend({ type: 'PASS', step: step.code })}
        >
          Pass {(step.pattern?.done ?? 0) + 1} of {step.pattern?.passes} done
        </button>
      );
    case 'MEASURE':
      return <Measure {...props} />;
    case 'MARK_TO_MARK':
      return <MarkToMark {...props} />;
    case 'RUNS':
      return <Runs {...props} />;
    case 'TIGHTEN':
      return step.book ? <Tighten {...props} /> : <FileTorque {...props} />;
  }
}

/** A look; where several things may be found at once they are chosen first and go out together. */
function Look({ step, busy, onSend }: Props) {
  const [seen, setSeen] = useState<string[]>([]);
  const several = step.takesSeveral;
  const answer = (results: string[]) => {
    const [result, ...also] = results;
    onSend({
      type: 'INSPECT',
      step: step.code,
      result,
      ...(also.length > 0 ? { also } : {}),
    });
  };
  const [usual, ...others] = step.results;
  return (
    <div className={several ? 'choices several' : 'choices'}>
      {usual && (
        <button
          className="bench-button action wide"
          disabled={busy || seen.length > 0}
          onClick={() => answer([usual.words])}
        >
          {usual.words}
        </button>
      )}
      <div className={several ? 'results' : 'choices'}>
        {others.map(({ words }) => (
          <button
            key={words}
            className={`bench-button wide${seen.includes(words) ? ' on' : ''}`}
            aria-pressed={several ? seen.includes(words) : undefined}
            disabled={busy}
            onClick={() =>
              several
                ? setSeen(seen.includes(words) ? seen.filter((s) => s !== words) : [...seen, words])
                : answer([words])
            }
          >
            {words}
          </button>
        ))}
      </div>
      {several && (
        <div className="send">
          <button
            className="bench-button action wide"
            disabled={busy || seen.length === 0}
            onClick={() => answer(seen)}
          >
            {seen.length > 1 ? `Enter these ${seen.length}` : 'Enter what was found'}
          </button>
        </div>
      )}
    </div>
  );
}

function Choose({ step, busy, onSend }: Props) {
  const [reason, setReason] = useState('');
  const [picked, setPicked] = useState<string>();
  const option = step.options.find((o) => o.code === picked);
  const choose = (code: string, words?: string) =>
    onSend({ type: 'CHOOSE', step: step.code, option: code, words });
  return (
    <div className="choices">
      {step.options.map((o) => (
        <button
          key={o.code}
          className={picked === o.code ? 'bench-button wide on' : 'bench-button wide'}
          disabled={busy}
          onClick={() => (o.needsReason ? setPicked(o.code) : choose(o.code))}
        >
          {o.words}
        </button>
      ))}
      {option && (
        <>
          <label htmlFor="choice-reason">Why; this is printed on the record</label>
          <textarea
            id="choice-reason"
            rows={2}
            maxLength={400}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <button
            className="bench-button action wide"
            disabled={busy || reason.trim() === ''}
            onClick={() => choose(option.code, reason)}
          >
            Take this way
          </button>
        </>
      )}
    </div>
  );
}

/** Up to this many are counted by one touch; more are typed. */
const BY_TOUCH = 6;

function Count({ step, busy, onSend }: Props) {
  const expected = step.expected ?? 0;
  const [typing, setTyping] = useState(false);
  const [value, setValue] = useState('');
  const send = (count: number) => onSend({ type: 'COUNT', step: step.code, count });
  return (
    <div>
      <p>
        How many {step.what}? <span className="muted">{expected} belong there.</span>
      </p>
      {expected > BY_TOUCH ? (
        <div className="choices">
          <button
            className="bench-button action wide tall"
            disabled={busy}
            onClick={() => send(expected)}
          >
            All {expected}
          </button>
          {typing ? (
            <>
              <Keypad
                label="Count"
                value={value}
                onChange={setValue}
                units={[{ value: 'n', label: '' }]}
                unit="n"
                onUnit={() => undefined}
              />
              <button
                className="bench-button wide"
                disabled={busy || value === '' || !Number.isInteger(Number(value))}
                onClick={() => send(Number(value))}
              >
                Enter {value || '0'}
              </button>
            </>
          ) : (
            <button className="bench-button wide" onClick={() => setTyping(true)}>
              Another number
            </button>
          )}
        </div>
      ) : (
        <div className="counts">
          {Array.from({ length: expected + 1 }, (_, n) => (
            <button
              key={n}
              className={n === expected ? 'bench-button action key' : 'bench-button key'}
              disabled={busy}
              onClick={() => send(n)}
            >
              {n}
            </button>
          ))}
        </div>
      )}
    </div>
  );
}

/** Points that hold unless they are touched. */
function Points({ step, busy, onSend }: Props) {
  const [off, setOff] = useState<string[]>([]);
  const proves = step.gate === 'REFERENCES_TRUE';
  return (
    <div className="choices">
      <p>{off.length ? `${step.wrong}:` : `Touch what is not so.`}</p>
      {step.points.map((r) => {
        const isOff = off.includes(r);
        return (
          <button
            key={r}
            className={isOff ? 'bench-button point stop wide' : 'bench-button point wide'}
            aria-pressed={isOff}
            onClick={() => setOff(isOff ? off.filter((x) => x !== r) : [...off, r])}
          >
            <span>{r}:</span> <span className="state">{isOff ? step.wrong : step.right}</span>
          </button>
        );
      })}
      <button
        className="bench-button action wide tall"
        disabled={busy}
        onClick={() =>
          onSend({
            type: step.task === 'MARKS' ? 'MARKS' : 'CHECK',
            step: step.code,
            wrong: off,
          })
        }
      >
        {off.length
          ? proves
            ? 'Record it, and set the timing again'
            : 'Record it'
          : `All ${step.points.length} ${step.right}`}
      </button>
    </div>
  );
}

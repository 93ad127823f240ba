import { useState } from 'react';
import type { Problem } from '../../api/client';
import type { Entry, Step } from './cardQueries';
import { Keypad } from './Keypad';

type TorqueUnit = NonNullable<Entry['unit']>;

const UNITS: { value: TorqueUnit; label: string }[] = [
  { value: 'NEWTON_METRE', label: 'N·m' },
  { value: 'POUND_FOOT', label: 'lb·ft' },
  { value: 'POUND_INCH', label: 'lb·in' },
];
const symbol = (unit?: string) => UNITS.find((u) => u.value === unit)?.label ?? unit;

/** What the step in focus asks for, at the thumb's edge. */
export function StepEntry({
  step,
  busy,
  guard,
  onSend,
}: {
  step: Step;
  busy: boolean;
  guard?: Problem;
  onSend: (entry: Entry) => void;
}) {
  switch (step.task) {
    case 'TICK':
    case 'CONFIRM':
      return (
        <button
          className="bench-button action wide"
          disabled={busy}
          onClick={() => onSend({ type: 'TICK', step: step.code })}
        >
          {step.task === 'TICK' ? 'Done' : 'Yes, it is so'}
        </button>
      );
    case 'INSPECT':
      return (
        <div className="choices">
          {step.results?.map((r) => (
            <button
              key={r}
              className="bench-button wide"
              disabled={busy}
              onClick={() => onSend({ type: 'INSPECT', step: step.code, result: r })}
            >
              {r}
            </button>
          ))}
        </div>
      );
    case 'COUNT':
      return (
        <div>
          <p>
            How many {step.what}? <span className="muted">{step.expected} belong there.</span>
          </p>
          <div className="counts">
            {Array.from({ length: (step.expected ?? 0) + 1 }, (_, n) => (
              <button
                key={n}
                className={n === step.expected ? 'bench-button action key' : 'bench-button key'}
                disabled={busy}
                onClick={() => onSend({ type: 'COUNT', step: step.code, count: n })}
              >
                {n}
              </button>
            ))}
          </div>
        </div>
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
    case 'MARKS':
      return <Marks step={step} busy={busy} onSend={onSend} />;
    case 'TIGHTEN':
      return <Tighten step={step} busy={busy} guard={guard} onSend={onSend} />;
  }
}

function Marks({
  step,
  busy,
  onSend,
}: {
  step: Step;
  busy: boolean;
  onSend: (entry: Entry) => void;
}) {
  const [off, setOff] = useState<string[]>([]);
  return (
    <div className="choices">
      <p>{off.length ? 'Not true:' : 'Touch the ones that are not true.'}</p>
      {step.references?.map((r) => {
        const isOff = off.includes(r);
        return (
          <button
            key={r}
            className={isOff ? 'bench-button stop wide' : 'bench-button wide'}
            aria-pressed={isOff}
            onClick={() => setOff(isOff ? off.filter((x) => x !== r) : [...off, r])}
          >
            {r}: {isOff ? 'not true' : 'true'}
          </button>
        );
      })}
      <button
        className="bench-button action wide tall"
        disabled={busy}
        onClick={() => onSend({ type: 'MARKS', step: step.code, notTrue: off })}
      >
        {off.length
          ? 'Record it, and set the timing again'
          : `All ${step.references?.length} are true`}
      </button>
    </div>
  );
}

function Tighten({
  step,
  busy,
  guard,
  onSend,
}: {
  step: Step;
  busy: boolean;
  guard?: Problem;
  onSend: (entry: Entry) => void;
}) {
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<TorqueUnit>('NEWTON_METRE');
  const [turned, setTurned] = useState(false);
  const [asked, setAsked] = useState('');
  const send = (as: TorqueUnit, unitConfirmed: boolean) => {
    setAsked(`${value} ${as}`);
    onSend({
      type: 'TORQUE',
      step: step.code,
      value: Number(value),
      unit: as,
      unitConfirmed,
      angleDegrees: turned ? step.angleDegrees : undefined,
    });
  };
  if (step.bookNm === undefined) {
    return (
      <p className="bench-warning">
        Not on file: the book has no torque for this joint. A manager enters it there, with its
        origin, or opens the gate with words.
      </p>
    );
  }
  // the question belongs to what was sent, not to what is typed since
  const question =
    guard?.type === '/problems/unit-guard' && asked === `${value} ${unit}` ? guard : undefined;
  return (
    <>
      <p>
        <b>{step.what}</b>
        {(step.bolts ?? 1) > 1 && <span className="muted"> {step.bolts} bolts</span>}
        <br />
        Book {fixed(step.bookNm)} N·m
        {step.angleDegrees !== undefined && ` + ${step.angleDegrees}°`}, good from{' '}
        {fixed(step.lowNm ?? 0)} to {fixed(step.highNm ?? 0)}{' '}
        <span className="muted">({step.origin})</span>
      </p>
      <Keypad
        label="Torque"
        value={value}
        onChange={setValue}
        units={UNITS}
        unit={unit}
        onUnit={setUnit}
      />
      {step.angleDegrees !== undefined && (
        <button
          className={turned ? 'bench-button wide on' : 'bench-button wide'}
          aria-pressed={turned}
          onClick={() => setTurned(!turned)}
        >
          {turned
            ? `and ${step.angleDegrees}° further: turned`
            : `Then ${step.angleDegrees}° further: not yet`}
        </button>
      )}
      {question ? (
        <div className="guard" role="alert">
          <p className="bench-caution">{question.message}</p>
          <div className="pair">
            <button
              className="bench-button action"
              disabled={busy}
              onClick={() => {
                setUnit(question.suggestion as TorqueUnit);
                send(question.suggestion as TorqueUnit, false);
              }}
            >
              Yes, {symbol(question.suggestion)}
            </button>
            <button className="bench-button" disabled={busy} onClick={() => send(unit, true)}>
              No, {symbol(unit)}
            </button>
          </div>
        </div>
      ) : (
        <button
          className="bench-button action wide"
          disabled={busy || value === '' || Number(value) <= 0}
          onClick={() => send(unit, false)}
        >
          Enter {value || '0'} {symbol(unit)}
        </button>
      )}
    </>
  );
}

const fixed = (n: number) => String(Number(n.toFixed(n < 20 ? 2 : 1)));

import { useState } from 'react';
import type { Problem } from '../../api/client';
import { TorqueScale } from '../../drawing/TorqueScale';
import type { Entry, EntryOf, Step } from './cardQueries';
import { Keypad } from './Keypad';

type TorqueUnit = NonNullable<EntryOf<'TORQUE'>['unit']>;

const UNITS: { value: TorqueUnit; label: string }[] = [
  { value: 'NEWTON_METRE', label: 'N·m' },
  { value: 'POUND_FOOT', label: 'lb·ft' },
  { value: 'POUND_INCH', label: 'lb·in' },
];
const symbol = (unit?: string) => UNITS.find((u) => u.value === unit)?.label ?? unit;

interface Props {
  step: Step;
  busy: boolean;
  problem?: Problem;
  onSend: (entry: Entry) => void;
}

const fixed = (n: number) => String(Number(n.toFixed(n < 20 ? 2 : 1)));

/** A torque in any unit, judged by the server; one that looks like the wrong unit is asked about. */
export function Tighten({ step, busy, problem, onSend }: Props) {
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<TorqueUnit>('NEWTON_METRE');
  const [asked, setAsked] = useState('');
  const book = step.book;
  if (!book) return null;
  const send = (as: TorqueUnit, unitConfirmed: boolean, angle: boolean) => {
    setAsked(`${value} ${as}`);
    onSend({
      type: 'TORQUE',
      step: step.code,
      value: Number(value),
      unit: as,
      unitConfirmed,
      angleDegrees: angle ? book.angleDegrees : undefined,
    });
  };
  const hasAngle = book.angleDegrees !== undefined;
  // the question belongs to what was sent, not to what is typed since
  const question =
    problem?.type === '/problems/unit-guard' && asked === `${value} ${unit}` ? problem : undefined;
  const unusable = busy || value === '' || !(Number(value) > 0);
  return (
    <>
      <p>
        <b>{step.what}</b>
        {(step.bolts ?? 1) > 1 && <span className="muted"> {step.bolts} bolts</span>}
        <br />
        Book {fixed(book.nm)} N·m
        {hasAngle && ` + ${book.angleDegrees}°`}, good from {fixed(book.lowNm)} to{' '}
        {fixed(book.highNm)}{' '}
        <span className="muted">
          ({book.origin}; {book.otherUnits.join(', ')})
        </span>
      </p>
      <Keypad
        label="Torque"
        value={value}
        onChange={setValue}
        units={UNITS}
        unit={unit}
        onUnit={setUnit}
      />
      {question ? (
        <div className="guard" role="alert">
          {question.value !== undefined && (
            <TorqueScale
              book={book.nm}
              low={book.lowNm}
              high={book.highNm}
              entered={question.value}
            />
          )}
          <p className="bench-caution">{question.message}</p>
          <div className="pair">
            <button
              className="bench-button action"
              disabled={busy}
              onClick={() => {
                setUnit(question.suggestion as TorqueUnit);
                send(question.suggestion as TorqueUnit, false, hasAngle);
              }}
            >
              Yes, {symbol(question.suggestion)}
            </button>
            <button
              className="bench-button"
              disabled={busy}
              onClick={() => send(unit, true, hasAngle)}
            >
              No, {symbol(unit)}
            </button>
          </div>
        </div>
      ) : (
        <>
          <button
            className="bench-button action wide"
            disabled={unusable}
            onClick={() => send(unit, false, hasAngle)}
          >
            Enter {value || '0'} {symbol(unit)}
            {hasAngle && ` and ${book.angleDegrees}°`}
          </button>
          {hasAngle && (
            <>
              <p className="muted">
                {book.angleDegrees}° is {book.angleWords}, marked on the socket.
              </p>
              <button
                className="bench-button wide"
                disabled={unusable}
                onClick={() => send(unit, false, false)}
              >
                Torque only, not turned yet
              </button>
            </>
          )}
        </>
      )}
    </>
  );
}

/** A torque the book does not have: entered with its origin, then the joint can be signed off. */
export function FileTorque({ step, busy, problem, onSend }: Props) {
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<TorqueUnit>('NEWTON_METRE');
  const [angle, setAngle] = useState('');
  const [origin, setOrigin] = useState('');
  return (
    <>
      <p className="bench-warning">
        Not on file: the book has no torque for {step.what}. Enter the maker’s figure with where it
        stands; it is printed on the record.
      </p>
      <Keypad
        label="Book value"
        value={value}
        onChange={setValue}
        units={UNITS}
        unit={unit}
        onUnit={setUnit}
      />
      <label htmlFor="filed-angle">Then turn by, degrees; empty for none</label>
      <input
        id="filed-angle"
        inputMode="numeric"
        value={angle}
        onChange={(e) => setAngle(e.target.value)}
      />
      <label htmlFor="filed-origin">Where it stands</label>
      <input
        id="filed-origin"
        value={origin}
        maxLength={120}
        onChange={(e) => setOrigin(e.target.value)}
      />
      {problem && (
        <p className="bench-warning" role="alert">
          {problem.message}
        </p>
      )}
      <button
        className="bench-button action wide"
        disabled={busy || !(Number(value) > 0) || origin.trim() === ''}
        onClick={() =>
          onSend({
            type: 'FILE_TORQUE',
            step: step.code,
            value: Number(value),
            unit,
            angleDegrees: angle === '' ? undefined : Number(angle),
            words: origin,
          })
        }
      >
        File {value || '0'} {symbol(unit)} for this job
      </button>
    </>
  );
}

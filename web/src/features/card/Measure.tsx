import { useState } from 'react';
import type { Problem } from '../../api/client';
import { useOutside } from '../../shared/outside';
import { useMeter, type Entry, type Step } from './cardQueries';
import { Keypad } from './Keypad';

const HOW: Record<string, string> = {
  POINTER: 'How far the pointer stands past its centre. Before it is less than zero.',
  TWIST: 'Longest free run between finger and thumb: a quarter turn is 90°.',
  FREQUENCY: 'Pluck the free run, engine cold; type what the meter shows.',
  TOOL_TORQUE: 'What the torque tool in the square shows. Never a click wrench.',
  COOLANT_OUT: 'What was caught.',
  COOLANT_IN: 'What went in, bled.',
  CLEARANCE: 'With the feeler gauge, engine cold.',
};

/** A figure read off an instrument, in the unit it shows. */
export function Measure({
  jobId,
  step,
  busy,
  onSend,
}: {
  jobId: number;
  step: Step;
  busy: boolean;
  problem?: Problem;
  onSend: (entry: Entry) => void;
}) {
  const [value, setValue] = useState('');
  const [below, setBelow] = useState(false);
  const meter = useMeter(jobId);
  const { beltMeter } = useOutside();
  const m = step.measure;
  if (!m) return null;
  const send = (n: number) => onSend({ type: 'MEASURE', step: step.code, value: n });
  const typed = (below ? -1 : 1) * Number(value);
  const volume = m.kind === 'COOLANT_IN' || m.kind === 'COOLANT_OUT';
  return (
    <>
      <p>
        {HOW[m.kind]}{' '}
        {!volume && (
          <b>
            Good from {m.low} to {m.high} {m.unit}.
          </b>
        )}
      </p>
      {m.usual !== undefined && (
        <button
          className="bench-button action wide"
          disabled={busy}
          onClick={() => send(m.usual ?? 0)}
        >
          {m.usual} {m.unit}, as the book has it
        </button>
      )}
      {m.kind === 'FREQUENCY' && beltMeter && (
        <>
          <button
            className="bench-button wide"
            disabled={meter.isPending}
            onClick={() => meter.mutate(undefined, { onSuccess: (r) => setValue(String(r.hertz)) })}
          >
            Read the meter
          </button>
          {meter.data?.newtons !== undefined && (
            <p className="muted">
              {meter.data.simulated && 'Simulated: a stand-in answers for the meter. '}
              {meter.data.hertz} Hz; a string like that pulls {meter.data.newtons.toFixed(0)} N.
            </p>
          )}
          {meter.error && (
            <p className="bench-warning" role="alert">
              {meter.error.message}
            </p>
          )}
        </>
      )}
      <Keypad
        label={step.title}
        value={value}
        onChange={setValue}
        units={[{ value: 'u', label: m.unit }]}
        unit="u"
        onUnit={() => undefined}
        sign={m.low <= 0 && !volume ? { below, onBelow: setBelow } : undefined}
      />
      <button
        className={m.usual === undefined ? 'bench-button action wide' : 'bench-button wide'}
        disabled={busy || value === '' || Number.isNaN(typed)}
        onClick={() => send(typed)}
      >
        Enter {value === '' ? '0' : typed} {m.unit}
      </button>
    </>
  );
}

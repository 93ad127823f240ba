import { Input } from 'antd';
import { useState } from 'react';
import { Problem } from '../../api/client';
import { formatKm } from '../../shared/format';
import type { Card, useEnter } from './cardQueries';
import { Keypad } from './Keypad';

/** Check-in on one screen: odometer, and the state as found. */
export function CheckIn({ card, enter }: { card: Card; enter: ReturnType<typeof useEnter> }) {
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<'KM' | 'MILES'>('KM');
  const [words, setWords] = useState('');
  const problem = enter.error instanceof Problem ? enter.error : undefined;
  const atOdometer = problem?.at('/odometer');
  const send = (insist: boolean) =>
    enter.mutate({ type: 'START', odometer: Number(value), odometerUnit: unit, words, insist });
  return (
    <>
      <section className="bench-step">
        <p className="muted">Check-in</p>
        <h1>Read the odometer at the vehicle</h1>
        <p>To renew: {card.items.join(', ')}.</p>
        {card.lastOdometerKm !== undefined && (
          <p className="muted">Last reading {formatKm(card.lastOdometerKm)}.</p>
        )}
        <p className="bench-caution">
          The manufacturer’s instructions come first. Rings and watch off; eye protection on.
        </p>
        <label htmlFor="found-words">Keys, codes read, state as found</label>
        <Input.TextArea
          id="found-words"
          rows={4}
          value={words}
          maxLength={400}
          onChange={(e) => setWords(e.target.value)}
        />
        {problem && !atOdometer && (
          <p className="bench-warning" role="alert">
            {problem.message}
          </p>
        )}
      </section>
      <section className="bench-entry" aria-label="Odometer">
        <Keypad
          label="Odometer"
          value={value}
          onChange={(v) => {
            setValue(v);
            enter.reset();
          }}
          units={[
            { value: 'KM', label: 'km' },
            { value: 'MILES', label: 'miles' },
          ]}
          unit={unit}
          onUnit={setUnit}
        />
        {atOdometer && (
          <p className="bench-warning" role="alert">
            {atOdometer}
          </p>
        )}
        {atOdometer && problem?.suggestion === 'insist' && (
          <button className="bench-button wide" onClick={() => send(true)}>
            It says so all the same
          </button>
        )}
        <button
          className="bench-button action wide"
          disabled={value === '' || enter.isPending}
          onClick={() => send(false)}
        >
          Check in and start
        </button>
      </section>
    </>
  );
}

import { useState } from 'react';
import { formatKm, usualUnit } from '../../shared/format';
import { useOutside } from '../../shared/outside';
import { useReadCodes, type Bench, type Card } from './cardQueries';
import { Keypad } from './Keypad';

/** Check-in on one screen: odometer, keys, codes read, state as found. */
export function CheckIn({ card, bench }: { card: Card; bench: Bench }) {
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<'KM' | 'MILES'>(usualUnit());
  const [words, setWords] = useState('');
  const [keys, setKeys] = useState('');
  const [codes, setCodes] = useState('');
  const reader = useReadCodes(card.vehicleId);
  const { faultCodeReader } = useOutside();
  const problem = bench.refused?.problem;
  const atOdometer = problem?.at('/odometer');
  const send = (insist: boolean) =>
    void bench.enter({
      type: 'START',
      odometer: Number(value),
      odometerUnit: unit,
      words,
      keys,
      codes,
      insist,
    });
  return (
    <>
      <section className="bench-step">
        <p className="muted">Check-in</p>
        <h1>Read the odometer at the vehicle</h1>
        <p>
          {card.inspection
            ? 'To inspect; nothing is opened.'
            : `To renew: ${card.items.join(', ')}.`}
          {card.lastOdometerKm !== undefined && (
            <span className="muted"> Last reading {formatKm(card.lastOdometerKm)}.</span>
          )}
        </p>
        {card.rework && (
          <p className="bench-caution">
            Comes back from job {card.rework.of}: {card.rework.reason}
          </p>
        )}
        <p className="bench-caution">
          The manufacturer’s instructions come first. Rings and watch off; eye protection on.
        </p>
        {card.cautions.map((c) => (
          <p key={c} className="bench-caution">
            {c}
          </p>
        ))}
        <label htmlFor="keys">Keys</label>
        <input
          id="keys"
          value={keys}
          maxLength={200}
          onChange={(e) => setKeys(e.target.value)}
          placeholder="where they hang"
        />
        <label htmlFor="codes">Codes read, and by whom</label>
        <div className="with-button">
          <input
            id="codes"
            value={codes}
            maxLength={400}
            onChange={(e) => setCodes(e.target.value)}
          />
          {faultCodeReader && (
            <button
              className="bench-button"
              disabled={reader.isPending}
              onClick={() =>
                reader.mutate(undefined, {
                  onSuccess: (r) =>
                    setCodes(
                      r.codes
                        .map((c) => (c.meaning ? `${c.code} ${c.meaning}` : c.code))
                        .join(', ') +
                        (r.codes.length ? '' : 'none stored') +
                        (r.simulated ? ' (simulated)' : ''),
                    ),
                })
              }
            >
              Read them
            </button>
          )}
        </div>
        {reader.error && (
          <p className="bench-warning" role="alert">
            {reader.error.message}
          </p>
        )}
        <label htmlFor="found-words">State as found</label>
        <textarea
          id="found-words"
          rows={2}
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
            bench.dismiss();
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
          disabled={value === '' || bench.busy}
          onClick={() => send(false)}
        >
          Check in and start
        </button>
      </section>
    </>
  );
}

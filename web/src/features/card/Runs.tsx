import { useState } from 'react';
import type { Entry, Step } from './cardQueries';
import { CountTable, whole } from './CountTable';

/** Teeth counted on each run, the old belt beside the new one. */
export function Runs({
  step,
  busy,
  onSend,
}: {
  step: Step;
  busy: boolean;
  onSend: (entry: Entry) => void;
}) {
  const runs = step.points;
  const [typed, setTyped] = useState([runs.map(() => ''), runs.map(() => '')]);
  const [wheels, setWheels] = useState('');
  const [oldCounts = [], counts = []] = typed.map((list) => list.map(whole));
  const onWheels = whole(wheels);
  const sum = counts.reduce<number>((a, n) => a + (n ?? 0), 0) + (onWheels ?? 0);
  const ready = onWheels !== undefined && [...counts, ...oldCounts].every((n) => n !== undefined);
  return (
    <>
      <CountTable head="Run" rows={runs} columns={['old', 'new']} counts={typed} onCount={setTyped}>
        <tr>
          <td>On the wheels</td>
          <td>
            <input
              aria-label="On the wheels, new"
              inputMode="numeric"
              value={wheels}
              onChange={(e) => setWheels(e.target.value)}
            />
          </td>
        </tr>
      </CountTable>
      <p className="muted">
        Together {sum} of {step.expected} teeth. Old counts prove something only if the old marks
        were true.
      </p>
      <button
        className="bench-button action wide"
        disabled={busy || !ready}
        onClick={() =>
          onSend({
            type: 'RUNS',
            step: step.code,
            counts: counts.map((n) => n ?? 0),
            oldCounts: oldCounts.map((n) => n ?? 0),
            count: onWheels,
          })
        }
      >
        Enter the counts
      </button>
    </>
  );
}

import { useState } from 'react';
import type { Entry, Step } from './cardQueries';

const whole = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : undefined);

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
  const [old, setOld] = useState<string[]>(runs.map(() => ''));
  const [now, setNow] = useState<string[]>(runs.map(() => ''));
  const [wheels, setWheels] = useState('');
  const counts = now.map(whole);
  const oldCounts = old.map(whole);
  const onWheels = whole(wheels);
  const sum = counts.reduce<number>((a, n) => a + (n ?? 0), 0) + (onWheels ?? 0);
  const ready = onWheels !== undefined && [...counts, ...oldCounts].every((n) => n !== undefined);
  const cell = (list: string[], set: (l: string[]) => void, i: number, label: string) => (
    <input
      aria-label={`${runs[i]}, ${label}`}
      inputMode="numeric"
      value={list[i]}
      onChange={(e) => set(list.map((v, k) => (k === i ? e.target.value : v)))}
    />
  );
  return (
    <>
      <table className="runs">
        <thead>
          <tr>
            <th>Run</th>
            <th>old</th>
            <th>new</th>
          </tr>
        </thead>
        <tbody>
          {runs.map((r, i) => (
            <tr key={r}>
              <td>{r}</td>
              <td>{cell(old, setOld, i, 'old')}</td>
              <td>{cell(now, setNow, i, 'new')}</td>
            </tr>
          ))}
          <tr>
            <td>On the wheels</td>
            <td />
            <td>
              <input
                aria-label="On the wheels, new"
                inputMode="numeric"
                value={wheels}
                onChange={(e) => setWheels(e.target.value)}
              />
            </td>
          </tr>
        </tbody>
      </table>
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

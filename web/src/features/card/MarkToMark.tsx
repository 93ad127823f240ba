import { useState } from 'react';
import type { Entry, Step } from './cardQueries';
import { CountTable, whole } from './CountTable';

const COLUMNS = ['old', 'old again', 'new', 'new again'];

/** Teeth or links from mark to mark on the old and on the new loop, each counted twice. */
export function MarkToMark({
  step,
  busy,
  onSend,
}: {
  step: Step;
  busy: boolean;
  onSend: (entry: Entry) => void;
}) {
  const [typed, setTyped] = useState(COLUMNS.map(() => step.points.map(() => '')));
  const counts = typed.map((list) => list.map(whole));
  const [old = [], oldAgain = [], now = [], again = []] = counts.map((list) =>
    list.map((n) => n ?? 0),
  );
  const ready = counts.flat().every((n) => n !== undefined);
  return (
    <>
      <CountTable
        head="From mark to mark"
        rows={step.points}
        columns={COLUMNS}
        counts={typed}
        onCount={setTyped}
      >
        <tr>
          <th className="spans-all" colSpan={COLUMNS.length}>
            Together, of {step.expected} {step.what}
          </th>
        </tr>
        <tr className="together">
          {[old, oldAgain, now, again].map((list, i) => (
            <td key={COLUMNS[i]} className="figure">
              {list.reduce((a, n) => a + n, 0)}
            </td>
          ))}
        </tr>
      </CountTable>
      <button
        className="bench-button action wide"
        disabled={busy || !ready}
        onClick={() =>
          onSend({
            type: 'MARK_TO_MARK',
            step: step.code,
            oldCounts: old,
            oldAgain,
            counts: now,
            again,
          })
        }
      >
        Enter the counts
      </button>
    </>
  );
}

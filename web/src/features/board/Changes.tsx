import type { Schemas } from '../../api/client';
import { formatMoney, formatTime, formatWeekday, formatWhole } from '../../shared/format';
import { useMe } from '../../shared/me';
import { spanWords } from './boardQueries';

type Cost = Schemas['PlanCostView'];

const placeWords = (p?: Schemas['PlaceView'] | null) =>
  p ? `${spanWords(p, formatWeekday, formatTime)}, ${p.technician}, ${p.bay}` : 'waiting';

/** Two plans side by side in money and vehicles. */
export function Compared({
  before,
  after,
  labels,
}: {
  before: Cost;
  after: Cost;
  labels: [string, string];
}) {
  const { currency } = useMe();
  const money = (m: number) => formatMoney(m, currency);
  const rows: [string, string, string][] = [
    ['Waiting, with strandings', money(before.exposureMinor), money(after.exposureMinor)],
    ['Jobs without a place', formatWhole(before.unplannedJobs), formatWhole(after.unplannedJobs)],
    ['Days off the road', formatWhole(before.offRoadDays), formatWhole(after.offRoadDays)],
    ['Jobs moved', '', formatWhole(after.movedJobs)],
    ['Cost in all', money(before.totalMinor), money(after.totalMinor)],
  ];
  return (
    <table className="compared">
      <thead>
        <tr>
          <th>
            <span className="unseen">Which plan</span>
          </th>
          {rows.map(([what]) => (
            <th key={what} className="num">
              {what}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {labels.map((label, i) => (
          <tr key={label}>
            <th scope="row">{label}</th>
            {rows.map((r) => (
              <td key={r[0]} className="num">
                {r[i + 1]}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Which cost the plan weighs; the Desk shows another. */
export function PricedNote() {
  return (
    <p className="hint">
      Waiting is weighed here with the price of a stranding beyond its bills; the Desk&apos;s
      exposure is the bills alone.
    </p>
  );
}

/** How many owners count on a time that would change. */
export function ToBeTold({ changes }: { changes: Schemas['PlanChangeView'][] }) {
  const count = changes.filter((c) => c.tell).length;
  if (count === 0) return null;
  return (
    <p className="warning-note">
      {count === 1 ? '1 owner has' : `${count} owners have`} to be told of another time.
    </p>
  );
}

/** Job by job: where it stands, where it would stand, what that is worth to it alone. */
export function Changes({
  changes,
  onSelect,
  tick,
}: {
  changes: Schemas['PlanChangeView'][];
  onSelect?: (jobId: number) => void;
  tick?: (jobId: number) => React.ReactNode;
}) {
  const { currency } = useMe();
  return (
    <table className="plain changes">
      <thead>
        <tr>
          {tick && (
            <th>
              <span className="unseen">Chosen</span>
            </th>
          )}
          <th>Vehicle</th>
          <th>Now</th>
          <th>Then</th>
          <th className="num">Saves by itself</th>
        </tr>
      </thead>
      <tbody>
        {changes.map((c) => (
          <tr key={c.jobId}>
            {tick && <td>{tick(c.jobId)}</td>}
            <td>
              {onSelect ? (
                <button className="line-name registration" onClick={() => onSelect(c.jobId)}>
                  {c.registration}
                </button>
              ) : (
                <span className="registration">{c.registration}</span>
              )}
            </td>
            <td>{placeWords(c.from)}</td>
            <td>
              {placeWords(c.to)}
              {c.tell && <span className="second">tell {c.tell}</span>}
              {c.needs.length > 0 && (
                <span className="second">
                  only with{' '}
                  {changes
                    .filter((other) => c.needs.includes(other.jobId))
                    .map((other) => other.registration)
                    .join(' and ')}
                </span>
              )}
            </td>
            <td className="num">{formatMoney(c.savesMinor, currency)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

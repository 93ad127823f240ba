import { useQuery } from '@tanstack/react-query';
import { Link, Navigate } from 'react-router';
import { formatHours, formatMoney, formatNumber } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { fleetsQuery } from './fleetQueries';

/** Every fleet and what its next twelve months come to. */
export default function Fleets() {
  const me = useMe();
  const { data: fleets, error } = useQuery(fleetsQuery);
  if (error) return <ProblemNote error={error} />;
  if (!fleets) return <p className="hint loading">Laying out the months…</p>;
  if (me.readsOnly && fleets.length === 1)
    return <Navigate to={`/fleets/${fleets[0]?.id}`} replace />;
  return (
    <div className="page fleets-page">
      <h1>Fleets, the next twelve months</h1>
      {fleets.length === 0 ? (
        <p className="empty">
          No fleets yet. {me.manages && <Link to="/setup/places">Add one in Setup</Link>}
        </p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>Fleet</th>
              <th className="num">Vehicles</th>
              <th className="num">Waiting today</th>
              <th className="num">Come due in the year</th>
              <th className="num">Planned</th>
              <th className="num">Hours</th>
              <th className="num">Money before tax, likely</th>
              <th className="num">Days off the road</th>
              <th>Months over the cap</th>
            </tr>
          </thead>
          <tbody>
            {fleets.map((f) => (
              <tr key={f.id}>
                <td>
                  <Link to={`/fleets/${f.id}`}>{f.name}</Link>
                </td>
                <td className="num">{formatNumber(f.vehicles)}</td>
                <td className="num">{formatNumber(f.dueNow)}</td>
                <td className="num">{formatNumber(f.year.vehicles)}</td>
                <td className="num">{formatNumber(f.year.planned)}</td>
                <td className="num">{formatHours(f.year.minutes)} h</td>
                <td className="num">{formatMoney(f.year.likelyMinor, me.currency)}</td>
                <td className="num">{formatNumber(f.year.offRoadDays)}</td>
                <td>{f.monthsOver === 0 ? 'none' : formatNumber(f.monthsOver)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

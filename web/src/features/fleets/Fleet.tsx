import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { FleetMonths } from '../../drawing/FleetMonths';
import {
  formatDate,
  formatHours,
  formatMoney,
  formatMonth,
  formatNumber,
  vehicleCount,
} from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { StandingCell, VehicleCell } from '../../shared/VehicleCells';
import { fleetQuery, pastQuery, useLeaveInItsMonth, type FleetPage } from './fleetQueries';
import { OwnJobs } from '../own/OwnJobs';
import { Contacts } from './Contacts';
import { Level } from './Level';

type Sum = FleetPage['year'];

/** A fleet by month, 24 ahead. */
export default function Fleet() {
  const id = Number(useParams().id);
  const me = useMe();
  const { data: f, error } = useQuery(fleetQuery(id));
  const [chosen, setChosen] = useState<string>();
  if (error) return <ProblemNote error={error} />;
  if (!f) return <p className="hint loading">Laying out the months…</p>;
  const byId = new Map(f.vehicles.map((v) => [v.vehicleId, v]));
  const month = f.months.find((m) => m.month === chosen);
  const listed = month
    ? f.vehicles.filter((v) => month.vehicleIds.includes(v.vehicleId))
    : f.vehicles;
  return (
    <div className="page fleet-page">
      <p className="hint">
        {!me.readsOnly && <Link to="/fleets">Fleets</Link>} {f.contactName}
        {f.phone && (
          <>
            {', '}
            <a href={`tel:${f.phone.replaceAll(' ', '')}`}>{f.phone}</a>
          </>
        )}
        {`; at most ${vehicleCount(f.offRoadCap)} off the road on a day`}
      </p>
      <h1>{f.name}</h1>
      <Contacts fleetId={f.id} />
      <div className="fleet-words">
        {f.words.map((w) => (
          <p key={w}>{w}</p>
        ))}
      </div>
      {me.readsOnly && <OwnJobs />}
      <div className="sideways">
        <FleetMonths months={f.months} vehicles={byId} chosen={chosen} onChoose={setChosen} />
      </div>
      <div className="actions">
        <a className="action" href={`/api/fleets/${f.id}/months.csv`}>
          As CSV
        </a>
        <a
          className="action"
          href={`/api/fleets/${f.id}/report.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Report to print
        </a>
        <a className="action" href={`/api/fleets/${f.id}/calendar.ics`}>
          Promises as a calendar
        </a>
      </div>
      <Level fleet={f} />
      <h2>
        {month
          ? `${formatMonth(month.month)}, ${vehicleCount(listed.length)}`
          : vehicleCount(listed.length)}
        {month && (
          <Button type="link" onClick={() => setChosen(undefined)}>
            All months
          </Button>
        )}
      </h2>
      <div className="sideways">
        <Vehicles fleet={f} rows={listed} />
      </div>
      <h2>By month</h2>
      <div className="sideways" role="region" aria-label="By month" tabIndex={0}>
        <table className="plain">
          <thead>
            <tr>
              <th>Month</th>
              <th className="num">Come due</th>
              <th className="num">Planned</th>
              <th className="num">Hours</th>
              <th className="num">Before tax, low to high</th>
              <th className="num">Likely</th>
              <th className="num">Days off the road, of</th>
              <th className="num">Limit behind them: 10, 50, 90 %</th>
            </tr>
          </thead>
          <tbody>
            {f.months.map((m) => (
              <tr key={m.month}>
                <td>{formatMonth(m.month)}</td>
                <Figures sum={m.sum} currency={me.currency} />
                <td className="num">
                  {m.over && <b className="bad">over </b>}
                  {m.sum.offRoadDays} of {m.spare}
                </td>
                <td className="num">
                  {m.reachedEarly}, {m.reachedMedian}, {m.reachedLate}
                </td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr>
              <th>Next twelve months</th>
              <Figures sum={f.year} currency={me.currency} />
              <td className="num">{f.year.offRoadDays}</td>
              <td />
            </tr>
          </tfoot>
        </table>
      </div>
      <Past id={f.id} currency={me.currency} />
      <p className="hint">
        {`${vehicleCount(f.beyond)} later, ${vehicleCount(f.without)} without a day. Done since the first of this month: ${f.doneThisMonth}. Tax is ${formatNumber(100 * f.taxShare, 1)} % of the money.`}
      </p>
    </div>
  );
}

/** What was done, year by year. */
function Past({ id, currency }: { id: number; currency: string }) {
  const { data: years, error } = useQuery(pastQuery(id));
  return (
    <section>
      <h2>Done, year by year</h2>
      <ProblemNote error={error} />
      {!years && !error && <p className="hint loading">Reading what was done…</p>}
      {years?.length === 0 && <p className="empty">No job was signed in the last five years.</p>}
      {years && years.length > 0 && (
        <div className="sideways">
          <table className="plain">
            <thead>
              <tr>
                <th>Year</th>
                <th className="num">Jobs</th>
                <th className="num">Renewals by their act-by day</th>
                <th className="num">Past a limit</th>
                <th>Which</th>
                <th className="num">Hours</th>
                <th className="num">Came to, before tax</th>
              </tr>
            </thead>
            <tbody>
              {years.map((y) => (
                <tr key={y.year}>
                  <td>{y.year}</td>
                  <td className="num">{formatNumber(y.jobs)}</td>
                  <td className="num">
                    {y.renewals > 0 &&
                      `${formatNumber(y.inTime)} of ${formatNumber(y.renewals)}, ${formatNumber(100 * (y.inTimeShare ?? 0))} %`}
                  </td>
                  <td className="num">{formatNumber(y.pastLimit)}</td>
                  <td className="registration">{y.slipped.join(', ')}</td>
                  <td className="num">
                    {formatHours(y.takenMinutes)} h
                    {y.counted < y.jobs && (
                      <span className="second">{`of ${y.counted} jobs on file`}</span>
                    )}
                  </td>
                  <td className="num">{formatMoney(y.takenMinor, currency)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

function Figures({ sum, currency }: { sum: Sum; currency: string }) {
  return (
    <>
      <td className="num">{formatNumber(sum.vehicles)}</td>
      <td className="num">{formatNumber(sum.planned)}</td>
      <td className="num">{sum.vehicles > 0 && `${formatHours(sum.minutes)} h`}</td>
      <td className="num">
        {sum.vehicles > 0 &&
          `${formatMoney(sum.lowMinor, currency)} to ${formatMoney(sum.highMinor, currency)}`}
      </td>
      <td className="num">{sum.vehicles > 0 && formatMoney(sum.likelyMinor, currency)}</td>
    </>
  );
}

function Vehicles({ fleet, rows }: { fleet: FleetPage; rows: FleetPage['vehicles'] }) {
  const { currency, manages } = useMe();
  const leave = useLeaveInItsMonth(fleet.id);
  if (rows.length === 0) return <p className="empty">Nothing comes due in this month.</p>;
  return (
    <>
      <ProblemNote error={leave.error} />
      <table className="plain">
        <thead>
          <tr>
            <th>Vehicle</th>
            <th>How it stands</th>
            <th className="num">Act by</th>
            <th className="num">Limit reached, 10 to 90 %</th>
            <th className="num">Planned</th>
            <th className="num">Hours</th>
            <th className="num">Before tax, likely</th>
            <th className="num">Days off</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((v) => (
            <tr key={v.vehicleId}>
              <VehicleCell vehicle={v} />
              <StandingCell status={v.status} words={v.statusWords} />
              <td className="num">
                {v.actBy ? formatDate(v.actBy) : 'none'}
                {v.forwardFrom && (
                  <span className="second">
                    brought forward from {formatDate(v.forwardFrom)}{' '}
                    {manages && (
                      <button
                        type="button"
                        className="link"
                        aria-label={`Leave ${v.registration} in its own month`}
                        disabled={leave.isPending}
                        onClick={() => leave.mutate(v.vehicleId)}
                      >
                        take back
                      </button>
                    )}
                  </span>
                )}
              </td>
              <td className="num">
                {v.early && v.late
                  ? v.early === v.late
                    ? formatDate(v.early)
                    : `${formatDate(v.early)} to ${formatDate(v.late)}`
                  : ''}
              </td>
              <td className="num">{v.plannedOn ? formatDate(v.plannedOn) : 'no'}</td>
              <td className="num">{formatHours(v.minutes)} h</td>
              <td className="num">{formatMoney(v.likelyMinor, currency)}</td>
              <td className="num">{v.offRoadDays}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { CarriedPicture } from '../../drawing/CarriedPicture';
import { useAddress } from '../../shared/address';
import {
  addMonths,
  formatDate,
  formatHours,
  formatKm,
  formatMoney,
  formatMonth,
  formatNumber,
} from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { VehicleCell } from '../../shared/VehicleCells';
import { csvOf, exposureQuery, monthQuery, type Asked, type MonthView } from './monthQueries';

type Signed = Schemas['SignedView'];

/** Which of the month's jobs are listed: what a figure was counted from. */
interface Listed {
  words: string;
  holds: (j: Signed) => boolean;
}

/** What a month came to; every figure opens the jobs it counts. */
export default function Month() {
  const me = useMe();
  const { params, change } = useAddress();
  const number = (name: string) => (params.get(name) ? Number(params.get(name)) : undefined);
  const asked: Asked = {
    month: params.get('month') ?? undefined,
    fleet: number('fleet'),
    family: params.get('family') ?? undefined,
    person: number('person'),
  };
  const { data: view, error } = useQuery(monthQuery(asked));
  const [listed, setListed] = useState<Listed>();
  const set = (name: string, value?: string) => {
    setListed(undefined);
    change((p) => (value ? p.set(name, value) : p.delete(name)));
  };
  if (error) return <ProblemNote error={error} />;
  if (!view) return <p className="hint loading">Adding up the month…</p>;
  const jobs = listed ? view.jobs.filter(listed.holds) : view.jobs;
  return (
    <div className="page month-page">
      <div className="page-head">
        <h1>{formatMonth(view.month)}</h1>
        <button
          type="button"
          className="action"
          onClick={() => set('month', addMonths(view.month, -1).slice(0, 7))}
        >
          The month before
        </button>
        {view.over && (
          <button
            type="button"
            className="action"
            onClick={() => set('month', addMonths(view.month, 1).slice(0, 7))}
          >
            The month after
          </button>
        )}
        {!view.over && <span className="hint">not over yet</span>}
      </div>
      <Filters view={view} asked={asked} set={set} />
      <div className="fleet-words">
        {view.words.map((w) => (
          <p key={w}>{w}</p>
        ))}
      </div>
      <InTime view={view} onList={setListed} />
      <div className="two-columns">
        <Hours
          title="Hours by engine"
          rows={view.byFamily}
          onList={(code, name) => setListed({ words: name, holds: (j) => j.familyCode === code })}
        />
        <Hours
          title="Hours by person"
          rows={view.byPerson}
          onList={(code, name) =>
            setListed({ words: name, holds: (j) => String(j.personId ?? '') === code })
          }
        />
      </div>
      <Money view={view} onList={setListed} currency={me.currency} />
      <h2 id="jobs">
        {listed
          ? `${listed.words}: ${formatNumber(jobs.length)}`
          : `Jobs signed: ${formatNumber(jobs.length)}`}{' '}
        {listed && (
          <Button type="link" onClick={() => setListed(undefined)}>
            All of the month
          </Button>
        )}
      </h2>
      <Jobs jobs={jobs} currency={me.currency} />
      <div className="actions">
        <a className="action" href={csvOf(asked)}>
          Jobs as CSV
        </a>
        <button type="button" className="action" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <Noes view={view} />
      <Rechecks view={view} />
      <Broken view={view} currency={me.currency} />
      <Coming view={view} currency={me.currency} />
      <Carried month={asked.month} currency={me.currency} />
    </div>
  );
}

function Filters({
  view,
  asked,
  set,
}: {
  view: MonthView;
  asked: Asked;
  set: (name: string, value?: string) => void;
}) {
  // what is chosen stays among the choices where it leaves no job
  const choices = (
    rows: [string | undefined, string | undefined][],
    chosen: string | undefined,
  ) => {
    const by = new Map(rows.filter(([code]) => code !== undefined).map(([c, n]) => [c!, n ?? c!]));
    if (chosen && !by.has(chosen)) by.set(chosen, 'the one chosen');
    return [...by].map(([value, label]) => ({ value, label }));
  };
  const filter = (
    name: string,
    label: string,
    chosen: string | undefined,
    rows: [string | undefined, string | undefined][],
  ) => (
    <Select
      allowClear
      aria-label={label}
      placeholder={label}
      value={chosen}
      options={choices(rows, chosen)}
      onChange={(v?: string) => set(name, v)}
      popupMatchSelectWidth={false}
    />
  );
  const text = (n: number | undefined) => (n === undefined ? undefined : String(n));
  return (
    <div className="filters">
      {filter(
        'fleet',
        'all fleets',
        text(asked.fleet),
        view.jobs.map((j) => [text(j.fleetId), j.fleetName]),
      )}
      {filter(
        'family',
        'all engines',
        asked.family,
        view.jobs.map((j) => [j.familyCode, j.familyName]),
      )}
      {filter(
        'person',
        'everybody',
        text(asked.person),
        view.jobs.map((j) => [text(j.personId), j.person]),
      )}
    </div>
  );
}

function Figure({ count, onList }: { count: number; onList: () => void }) {
  return count === 0 ? (
    <span>0</span>
  ) : (
    <button
      type="button"
      className="link figure"
      onClick={() => {
        onList();
        document.getElementById('jobs')?.scrollIntoView?.({ block: 'start' });
      }}
    >
      {formatNumber(count)}
    </button>
  );
}

/** How many renewals were in time, as bars whose lengths are their counts. */
function InTime({ view, onList }: { view: MonthView; onList: (l: Listed) => void }) {
  const most = Math.max(1, ...view.timeliness.map((t) => t.jobs));
  return (
    <section>
      <h2>Renewals done</h2>
      <table className="plain in-time">
        <tbody>
          {view.timeliness.map((t) => (
            <tr key={t.timeliness}>
              <td>{t.words}</td>
              <td className="num">
                <Figure
                  count={t.jobs}
                  onList={() =>
                    onList({
                      words: `Done ${t.words}`,
                      holds: (j) => j.timeliness === t.timeliness,
                    })
                  }
                />
              </td>
              <td className="bar">
                {t.jobs > 0 && (
                  <span
                    className={`length ${t.timeliness}`}
                    style={{ width: `${(100 * t.jobs) / most}%` }}
                    aria-hidden="true"
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Hours({
  title,
  rows,
  onList,
}: {
  title: string;
  rows: MonthView['byFamily'];
  onList: (code: string, name: string) => void;
}) {
  return (
    <section>
      <h2>{title}</h2>
      {rows.length === 0 ? (
        <p className="empty">No job was signed.</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>
                <span className="unseen">{title}</span>
              </th>
              <th className="num">Jobs</th>
              <th className="num">By the book</th>
              <th className="num">Taken</th>
              <th className="num">Taken to book</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <tr key={r.code}>
                <td>
                  {r.name}
                  {r.counted < r.jobs && (
                    <span className="second">{`hours of ${r.counted} on file`}</span>
                  )}
                </td>
                <td className="num">
                  <Figure count={r.jobs} onList={() => onList(r.code, r.name)} />
                </td>
                <td className="num">{formatHours(r.bookMinutes)} h</td>
                <td className="num">{formatHours(r.takenMinutes)} h</td>
                <td className="num">
                  {r.takenToBook !== undefined && formatNumber(r.takenToBook, 2)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Money({
  view,
  onList,
  currency,
}: {
  view: MonthView;
  onList: (l: Listed) => void;
  currency: string;
}) {
  const m = view.money;
  return (
    <section>
      <h2>Estimates against what it came to</h2>
      {m.jobs === 0 && <p className="empty">No job has both an estimate and what it took.</p>}
      <table className="plain" hidden={m.jobs + m.left === 0}>
        <thead>
          <tr>
            <th className="num">Jobs with both</th>
            <th className="num">Estimated, before tax</th>
            <th className="num">Came to</th>
            <th className="num">Difference</th>
            <th className="num">One of them lacking</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td className="num">
              <Figure
                count={m.jobs}
                onList={() =>
                  onList({
                    words: 'With an estimate and what it took',
                    holds: (j) => j.estimatedMinor !== undefined && j.takenMinor !== undefined,
                  })
                }
              />
            </td>
            <td className="num">{formatMoney(m.estimatedMinor, currency)}</td>
            <td className="num">{formatMoney(m.takenMinor, currency)}</td>
            <td className="num">
              {m.differenceMinor !== 0 &&
                `${formatMoney(Math.abs(m.differenceMinor), currency)} ${m.differenceMinor > 0 ? 'over' : 'under'}`}
            </td>
            <td className="num">
              <Figure
                count={m.left}
                onList={() =>
                  onList({
                    words: 'Without an estimate or what it took',
                    holds: (j) => j.estimatedMinor === undefined || j.takenMinor === undefined,
                  })
                }
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}

function Jobs({ jobs, currency }: { jobs: Signed[]; currency: string }) {
  if (jobs.length === 0) return <p className="empty">None.</p>;
  return (
    <div className="sideways">
      <table className="plain">
        <thead>
          <tr>
            <th>Done</th>
            <th>Vehicle</th>
            <th>Owner</th>
            <th>Engine</th>
            <th>By</th>
            <th className="num">Odometer</th>
            <th>In time</th>
            <th className="num">Book</th>
            <th className="num">Taken</th>
            <th className="num">Estimated</th>
            <th className="num">Came to</th>
          </tr>
        </thead>
        <tbody>
          {jobs.map((j) => (
            <tr key={j.jobId}>
              <td>
                <Link to={`/jobs/${j.jobId}`}>{formatDate(j.on)}</Link>
                {j.againId !== undefined && (
                  <span className="second late">
                    came back, <Link to={`/jobs/${j.againId}`}>job {j.againId}</Link>: {j.againWhy}
                  </span>
                )}
              </td>
              <VehicleCell vehicle={j} />
              <td>
                {j.ownerName}
                {j.fleetName && <span className="second">{j.fleetName}</span>}
              </td>
              <td>{j.familyName}</td>
              <td>{j.person ?? 'never on the board'}</td>
              <td className="num">{formatKm(j.km)}</td>
              <td>{j.inspection ? 'an inspection' : (j.timelinessWords ?? 'no belt or chain')}</td>
              <td className="num">{formatHours(j.bookMinutes)} h</td>
              <td className="num">
                {j.takenMinutes === undefined ? 'not on file' : `${formatHours(j.takenMinutes)} h`}
              </td>
              <td className="num">
                {j.estimatedMinor === undefined ? '' : formatMoney(j.estimatedMinor, currency)}
              </td>
              <td className="num">
                {j.takenMinor === undefined ? '' : formatMoney(j.takenMinor, currency)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Noes({ view }: { view: MonthView }) {
  return (
    <section>
      <h2>What owners said no to</h2>
      {view.noes.length === 0 ? (
        <p className="empty">Nothing.</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>On</th>
              <th>Vehicle</th>
              <th>To what</th>
              <th>Said by</th>
              <th>Told of the risk</th>
              <th>What became of it</th>
            </tr>
          </thead>
          <tbody>
            {view.noes.map((n, i) => (
              <tr key={i}>
                <td>{formatDate(n.on)}</td>
                <td>
                  <Link to={`/vehicles/${n.vehicleId}`} className="registration">
                    {n.registration}
                  </Link>
                </td>
                <td>
                  {n.what}
                  {n.jobId !== undefined && (
                    <>
                      , <Link to={`/jobs/${n.jobId}`}>job {n.jobId}</Link>
                    </>
                  )}
                </td>
                <td>{n.by}</td>
                <td>{n.told}</td>
                <td>
                  {n.became === 'BROKE_DOWN' ? (
                    <b className="bad">{n.becameWords}</b>
                  ) : (
                    n.becameWords
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Rechecks({ view }: { view: MonthView }) {
  if (view.rechecks.length === 0) return null;
  return (
    <section>
      <h2>Rechecks due</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>Due</th>
            <th>Vehicle</th>
            <th>What</th>
            <th>Looked at</th>
          </tr>
        </thead>
        <tbody>
          {view.rechecks.map((r) => (
            <tr key={`${r.jobId} ${r.due} ${r.what}`}>
              <td>{formatDate(r.due)}</td>
              <td>
                <Link to={`/vehicles/${r.vehicleId}`} className="registration">
                  {r.registration}
                </Link>
              </td>
              <td>{r.what}</td>
              <td>
                {r.late && <b className="bad">late </b>}
                {r.doneOn ? `${formatDate(r.doneOn)}: ${r.result}` : 'not yet'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Broken({ view, currency }: { view: MonthView; currency: string }) {
  if (view.breakdowns.length === 0) return null;
  return (
    <section>
      <h2>Drives that broke down</h2>
      <ul className="plain">
        {view.breakdowns.map((b) => (
          <li key={`${b.vehicleId} ${b.on}`}>
            <Link to={`/vehicles/${b.vehicleId}`} className="registration">
              {b.registration}
            </Link>{' '}
            {formatDate(b.on)}: {b.what}
            {b.declined && ', the work had been declined'}
            {b.costMinor !== undefined && `, ${formatMoney(b.costMinor, currency)}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Coming({ view, currency }: { view: MonthView; currency: string }) {
  return (
    <section>
      <h2>Seen coming, over all vehicles</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>Month</th>
            <th className="num">Vehicles</th>
            <th className="num">Planned</th>
            <th className="num">Hours</th>
            <th className="num">Likely, before tax</th>
          </tr>
        </thead>
        <tbody>
          {view.coming.map((c) => (
            <tr key={c.month}>
              <td>
                {formatMonth(c.month)}
                {c.vehicles.length > 0 && (
                  <details className="second names">
                    <summary>which</summary>
                    {c.vehicles.map((v) => (
                      <span key={v.vehicleId}>
                        <Link to={`/vehicles/${v.vehicleId}`} className="registration">
                          {v.registration}
                        </Link>{' '}
                      </span>
                    ))}
                  </details>
                )}
              </td>
              <td className="num">{formatNumber(c.vehicles.length)}</td>
              <td className="num">{formatNumber(c.planned)}</td>
              <td className="num">{formatHours(c.minutes)} h</td>
              <td className="num">{formatMoney(c.likelyMinor, currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Carried({ month, currency }: { month: string | undefined; currency: string }) {
  const { data: days, error } = useQuery(exposureQuery(month));
  return (
    <section>
      <h2>Exposure carried</h2>
      <p className="hint">
        Over the vehicles on file now, each day by what was known on it and judged as today.
      </p>
      <ProblemNote error={error} />
      {!days && !error && <p className="hint loading">Working out each day…</p>}
      {days && <CarriedPicture days={days} currency={currency} />}
    </section>
  );
}

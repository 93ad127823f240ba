import { useQuery } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatDate, formatKm, formatMoney, formatNumber } from '../../shared/format';
import { Field } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { breakdownsQuery, useAcceptWear, useWithdrawBreakdown } from './setupQueries';

type View = Schemas['BreakdownsView'];
type Family = Schemas['FamilyToldView'];
type Noted = Schemas['BreakdownView'];

const percent = (share: number) => `${formatNumber(100 * share, 2)} %`;

/** What broke down, against what the assumptions expected, and what that says of them. */
export default function Breakdowns() {
  const { data: told, error, refetch } = useQuery(breakdownsQuery);
  if (!told) return error ? <ProblemNote error={error} retry={() => refetch()} /> : null;
  return (
    <div className="breakdowns">
      <Learned told={told} />
      <section>
        <h2>Expected against happened</h2>
        {told.families.length === 0 ? (
          <p className="hint">
            No belt or chain has been watched from one reading to another yet. Each renewal on file
            with readings after it tells something, also without a breakdown.
          </p>
        ) : (
          <>
            <table className="plain told-years">
              <thead>
                <tr>
                  <th>Engine family, years</th>
                  <th className="num">Drives watched</th>
                  <th className="num">Expected</th>
                  <th className="num">By chance</th>
                  <th className="num">Happened</th>
                </tr>
              </thead>
              {told.families.map((f) => (
                <FamilyYears key={f.code} family={f} />
              ))}
            </table>
            <p className="hint">
              In nine years of ten no more should break down than the second figure of &quot;by
              chance&quot;, and in nine of ten no fewer than the first. A belt or chain is watched
              from the first reading on file to a failure, a renewal, a finding or the last reading.
              {told.notCounted > 0 &&
                ` Noted besides and not counted here: ${told.notCounted}, of unknown history, after something had been found, or of an engine without limits.`}
            </p>
          </>
        )}
      </section>
      <section>
        <h2>Breakdowns on file</h2>
        {told.breakdowns.length === 0 ? (
          <p className="hint">
            None. One is noted on the vehicle&apos;s page: More, It broke down.
          </p>
        ) : (
          <ul className="plain">
            {told.breakdowns.map((b) => (
              <OnFile key={b.id} b={b} currency={told.currency} />
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

/** The figures in force beside what the workshop's own drives speak for. */
function Learned({ told }: { told: View }) {
  const accept = useAcceptWear();
  const l = told.learned;
  const same = l && Math.abs(l.share.mean - told.share) < 1e-6;
  return (
    <section>
      <h2>What our own drives say</h2>
      {!l ? (
        <p className="hint">Nothing yet: the assumptions stand as they are.</p>
      ) : (
        <>
          <table className="plain learned">
            <thead>
              <tr>
                <th>Wear</th>
                <th className="num">Reckoned with now</th>
                <th className="num">Learned</th>
                <th className="num">Likely between</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <td>Drives failed when their limits are reached</td>
                <td className="num">{percent(told.share)}</td>
                <td className="num">{percent(l.share.mean)}</td>
                <td className="num">
                  {percent(l.share.low)} and {percent(l.share.high)}
                </td>
              </tr>
              <tr>
                <td>Shape of the wear-out</td>
                <td className="num">{formatNumber(told.shape, 2)}</td>
                <td className="num">{formatNumber(l.shape.mean, 2)}</td>
                <td className="num">
                  {formatNumber(l.shape.low, 2)} and {formatNumber(l.shape.high, 2)}
                </td>
              </tr>
            </tbody>
          </table>
          <p className="hint">
            From {l.lives} {l.lives === 1 ? 'belt or chain' : 'belts and chains'} watched,{' '}
            {l.failures === 0 ? 'none' : l.failures} of them failed. What was assumed before counts
            as six failures, so that one bad month does not decide. Kinds of item with wear of their
            own keep it.
          </p>
          <ProblemNote error={accept.error} />
          {same ? (
            <p role="status">These figures are in force.</p>
          ) : (
            <Button
              type="primary"
              loading={accept.isPending}
              onClick={() =>
                accept.mutate({
                  share: l.share.mean,
                  shape: l.shape.mean,
                  version: told.version,
                })
              }
            >
              Reckon with what was learned
            </Button>
          )}
        </>
      )}
    </section>
  );
}

function FamilyYears({ family }: { family: Family }) {
  const [open, setOpen] = useState(false);
  return (
    <tbody>
      <YearRow
        y={family.total}
        label={
          <>
            <button className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
              {family.name}
            </button>{' '}
            <span className="second">{years(family)}</span>
          </>
        }
      />
      {open && family.years.map((y) => <YearRow key={y.year} y={y} label={String(y.year)} inner />)}
    </tbody>
  );
}

function YearRow({
  y,
  label,
  inner = false,
}: {
  y: Schemas['YearToldView'];
  label: React.ReactNode;
  inner?: boolean;
}) {
  const odd = y.happened > y.high ? 'more than chance' : y.happened < y.low ? 'fewer' : undefined;
  return (
    <tr className={inner ? 'inner' : ''}>
      <td>{label}</td>
      <td className="num">{y.lives}</td>
      <td className="num">{formatNumber(y.expected, 2)}</td>
      <td className="num">{y.low === y.high ? y.low : `${y.low} to ${y.high}`}</td>
      <td className="num">
        {y.happened}
        {odd && <span className="second">{odd}</span>}
      </td>
    </tr>
  );
}

function years(family: Family): string {
  const first = family.years[0]?.year;
  const last = family.years.at(-1)?.year;
  return first === last ? String(first) : `${first} to ${last}`;
}

function OnFile({ b, currency }: { b: Noted; currency: string }) {
  const [asking, setAsking] = useState(false);
  const [why, setWhy] = useState('');
  const withdraw = useWithdrawBreakdown(() => setAsking(false));
  return (
    <li className={b.withdrawn ? 'ended' : ''}>
      <span>
        <Link to={`/vehicles/${b.vehicleId}`}>{b.registration}</Link>, {b.item.toLowerCase()}, on{' '}
        {formatDate(b.on)} at {formatKm(b.km)}: {b.what}
        {b.costMinor !== undefined && `; ${formatMoney(b.costMinor, currency)}`}
        {b.declined && '; the work had been declined'}
        {b.withdrawn && `. Withdrawn: ${b.withdrawn}`}
        <span className="second">noted by {b.enteredBy}</span>
      </span>
      {!b.withdrawn && (
        <button className="link" aria-expanded={asking} onClick={() => setAsking(!asking)}>
          Withdraw
        </button>
      )}
      {asking && !b.withdrawn && (
        <form
          className="inline"
          onSubmit={(e) => {
            e.preventDefault();
            withdraw.mutate({ id: b.id, why });
          }}
        >
          <Field
            id={`why-${b.id}`}
            label="Why"
            error={withdraw.error}
            at="/why"
            hint="Where it stopped the engine, that finding is withdrawn on the vehicle's own page."
          >
            <Input
              id={`why-${b.id}`}
              autoFocus
              maxLength={200}
              value={why}
              onChange={(e) => setWhy(e.target.value)}
            />
          </Field>
          <Button htmlType="submit" loading={withdraw.isPending} disabled={!why.trim()}>
            Withdraw it
          </Button>
        </form>
      )}
    </li>
  );
}

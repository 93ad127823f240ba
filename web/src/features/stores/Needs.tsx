import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatDate, formatMoney, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { useOutside } from '../../shared/outside';
import { ProblemNote } from '../../shared/ProblemNote';
import { storesQuery, useOrder, type Stores } from './storesQueries';

/** What is short and by when to order it; then every coming job with its parts. */
export default function Needs() {
  const { data: stores, error, refetch } = useQuery(storesQuery);
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!stores) return <p className="hint">Counting…</p>;
  return (
    <>
      <Shorts stores={stores} />
      <h2>Parts of coming jobs</h2>
      {stores.needs.length === 0 && <p className="hint">No job is open.</p>}
      <div className="need-list">
        {stores.needs.map((n) => (
          <Need key={n.jobId} need={n} />
        ))}
      </div>
    </>
  );
}

function Shorts({ stores }: { stores: Stores }) {
  const { currency, desk } = useMe();
  const order = useOrder();
  const { delivery } = useOutside();
  const [left, setLeft] = useState<string[]>([]);
  const taken = stores.shorts.filter((s) => !left.includes(s.part));
  const sum = taken.reduce((n, s) => n + s.pieces * s.priceMinor, 0);
  return (
    <section aria-label="Short">
      <header className="stores-head">
        <h1>Short</h1>
        <span className="hint">
          {stores.nextFerry
            ? `Next ${delivery} ${formatWeekday(stores.nextFerry)}`
            : `No ${delivery} in sight`}
        </span>
        <a className="action" href="/api/stores/short.csv" download>
          CSV
        </a>
      </header>
      {stores.shorts.length === 0 ? (
        <p>Nothing is short: every coming job has its parts in the house or on order.</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              {desk && (
                <th>
                  <span className="unseen">Chosen to order</span>
                </th>
              )}
              <th>Order by</th>
              <th>Part</th>
              <th>
                <span className="unseen">Part name</span>
              </th>
              <th className="num">Pieces</th>
              <th className="num">In the house</th>
              <th>Here if ordered today</th>
              <th className="num">Price</th>
              <th>For</th>
            </tr>
          </thead>
          <tbody>
            {stores.shorts.map((s) => (
              <tr key={s.part}>
                {desk && (
                  <td>
                    <Checkbox
                      aria-label={`Order ${s.part}`}
                      checked={!left.includes(s.part)}
                      onChange={(e) =>
                        setLeft(
                          e.target.checked ? left.filter((p) => p !== s.part) : [...left, s.part],
                        )
                      }
                    />
                  </td>
                )}
                <td className={s.late ? 'late' : ''}>
                  {s.late
                    ? 'too late for its job'
                    : s.orderBy
                      ? formatWeekday(s.orderBy)
                      : 'no place yet'}
                </td>
                <td className="part-number">{s.part}</td>
                <td>{s.name}</td>
                <td className="num">{s.pieces}</td>
                <td className="num">{s.inHouse}</td>
                <td>{s.here ? formatWeekday(s.here) : 'no delivery in sight'}</td>
                <td className="num">{formatMoney(s.pieces * s.priceMinor, currency)}</td>
                <td>
                  {s.jobs.map((j) => (
                    <Link key={j.jobId} className="registration" to={`/board?job=${j.jobId}`}>
                      {j.registration}{' '}
                    </Link>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {desk && stores.shorts.length > 0 && (
        <div className="actions">
          <Button
            type="primary"
            disabled={taken.length === 0}
            loading={order.isPending}
            onClick={() => order.mutate(taken.map((s) => ({ part: s.part, pieces: s.pieces })))}
          >
            Order {taken.length} {taken.length === 1 ? 'part' : 'parts'},{' '}
            {formatMoney(sum, currency)}
          </Button>
          <span className="hint">
            Goes to the simulated supplier; it can be cancelled until it comes.
          </span>
        </div>
      )}
      <ProblemNote error={order.error} />
    </section>
  );
}

const SUPPLY = {
  IN_HOUSE: 'in the house',
  ORDERED: 'on order',
  TO_ORDER: 'to order',
  NOT_LISTED: 'not in the catalogue',
} as const;

function Need({ need }: { need: Schemas['JobNeeds'] }) {
  return (
    <article className="need">
      <header>
        <Link className="registration" to={`/board?job=${need.jobId}`}>
          {need.registration}
        </Link>
        <span>{need.makeModel}</span>
        <span className="hint">
          {need.start
            ? `starts ${formatWeekday(need.start)}, ${formatTime(need.start)}`
            : need.actBy
              ? `waits, act by ${formatDate(need.actBy)}`
              : 'waits'}
        </span>
        <b>{need.ready ? 'all here' : ''}</b>
      </header>
      {!need.ready && (
        <ul>
          {need.lines
            .filter((l) => l.supply !== 'IN_HOUSE')
            .map((l) => (
              <li key={l.part}>
                <span className="part-number">{l.part}</span>
                <span>{l.name}</span>
                <span className={l.late ? 'late' : ''}>
                  {SUPPLY[l.supply]}
                  {l.day && `, ${formatWeekday(l.day)}`}
                  {l.late && ', after its start'}
                </span>
              </li>
            ))}
        </ul>
      )}
    </article>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Popconfirm } from 'antd';
import { formatMoney, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { storesQuery, useArrived, useCancelOrder } from './storesQueries';

/** Orders under way, and those of the last two weeks. */
export default function Orders() {
  const { currency, desk } = useMe();
  const { data: stores, error, refetch } = useQuery(storesQuery);
  const arrived = useArrived();
  const cancel = useCancelOrder();
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!stores) return <p className="hint">Reading the orders…</p>;
  return (
    <>
      <header className="stores-head">
        <h1>Orders</h1>
        <span className="hint">
          What arrives goes onto the shelf and lets its jobs start sooner.
        </span>
      </header>
      <ProblemNote error={arrived.error ?? cancel.error} />
      {stores.orders.length === 0 ? (
        <p>Nothing is on order. “Coming jobs” says what is short.</p>
      ) : (
        <table className="plain">
          <thead>
            <tr>
              <th>Part</th>
              <th>
                <span className="unseen">Part name</span>
              </th>
              <th className="num">Pieces</th>
              <th className="num">Price</th>
              <th>Ordered</th>
              <th>Expected</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {stores.orders.map((o) => {
              const open = !o.arrivedOn && !o.cancelledOn;
              return (
                <tr key={o.id}>
                  <td className="part-number">{o.part}</td>
                  <td>{o.name}</td>
                  <td className="num">{o.pieces}</td>
                  <td className="num">{formatMoney(o.priceMinor, currency)}</td>
                  <td>
                    {formatWeekday(o.orderedOn)}
                    <span className="second">{o.orderedBy}</span>
                  </td>
                  <td>
                    {o.arrivedOn
                      ? `came ${formatWeekday(o.arrivedOn)}`
                      : o.cancelledOn
                        ? `cancelled ${formatWeekday(o.cancelledOn)}`
                        : o.expected
                          ? formatWeekday(o.expected)
                          : 'no delivery in sight'}
                    {open && o.expected !== o.promised && (
                      <span className="second late">
                        was promised for {formatWeekday(o.promised)}
                      </span>
                    )}
                  </td>
                  <td>
                    {open && desk && (
                      <div className="row-actions">
                        <Button
                          size="small"
                          disabled={arrived.isPending}
                          onClick={() => arrived.mutate({ id: o.id, version: o.version })}
                        >
                          It is here
                        </Button>
                        <Popconfirm
                          title={`Cancel the order of ${o.part}?`}
                          okText="Cancel the order"
                          cancelText="Keep it"
                          onConfirm={() => cancel.mutate({ id: o.id, version: o.version })}
                        >
                          <button className="link">Cancel</button>
                        </Popconfirm>
                      </div>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </>
  );
}

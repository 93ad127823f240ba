import { PricedNote } from './Changes';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { formatMoney, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { offersQuery, spanWords, usePlace, type BoardJob } from './boardQueries';

/** The five best slots, each with what it costs the rest; one click promises it. */
export function Offers({ job, onDone }: { job: BoardJob; onDone: () => void }) {
  const { currency } = useMe();
  const { data: offers, error, isFetching } = useQuery(offersQuery(job.jobId));
  const place = usePlace();
  return (
    <div className="offers">
      <ProblemNote error={error ?? place.error} />
      {!offers && isFetching && <p className="hint">Looking through the board…</p>}
      {offers?.length === 0 && (
        <p>No slot is free within twelve weeks. “Why not planned?” says what is in the way.</p>
      )}
      {offers && offers.length > 0 && <PricedNote />}
      {offers && offers.length > 0 && (
        <table className="plain">
          <thead>
            <tr>
              <th>Slot</th>
              <th>Who, where</th>
              <th className="num">Waiting until then</th>
              <th className="num">Off the road</th>
              <th className="num">Costs the rest</th>
              <th>Who waits longer</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {offers.map((o) => (
              <tr key={o.place.start + o.place.technicianId}>
                <td>{spanWords(o.place, formatWeekday, formatTime)}</td>
                <td>
                  {o.place.technician}, {o.place.bay}
                </td>
                <td className="num">{formatMoney(o.waitingMinor, currency)}</td>
                <td className="num">{formatMoney(o.offRoadMinor, currency)}</td>
                <td className="num">{formatMoney(o.restMinor, currency)}</td>
                <td>
                  {o.later.length === 0
                    ? 'nobody'
                    : o.later
                        .slice(0, 2)
                        .map(
                          (l) =>
                            `${l.registration} ${l.days == null ? 'finds no place' : `${l.days} ${l.days === 1 ? 'day' : 'days'}`}`,
                        )
                        .join(', ')}
                  {o.later.length > 2 && ` and ${o.later.length - 2} more`}
                </td>
                <td>
                  <Button
                    size="small"
                    disabled={place.isPending}
                    onClick={() =>
                      place.mutate(
                        {
                          jobId: job.jobId,
                          technicianId: o.place.technicianId,
                          bayId: o.place.bayId,
                          day: o.place.start.slice(0, 10),
                          time: o.place.start.slice(11, 16),
                          promised: true,
                          version: job.version,
                        },
                        { onSuccess: onDone },
                      )
                    }
                  >
                    Promise {formatWeekday(o.place.start)}
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

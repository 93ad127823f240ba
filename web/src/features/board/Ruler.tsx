import type { Schemas } from '../../api/client';
import { LABEL, xOf } from '../../drawing/boardTracks';
import { formatHours, formatWeekday } from '../../shared/format';
import { useOutside } from '../../shared/outside';
import { dayClass, perDay } from './boardParts';
import type { Board } from './boardQueries';

/** The days: which are closed, when parts come, which fleets can spare no more. */
export function Ruler({ board }: { board: Board }) {
  const { delivery } = useOutside();
  return (
    <div className="ruler">
      <div className="track-label">
        <b>Waiting {board.waiting.length}</b>
        <span>act-by day passed</span>
      </div>
      {board.days.map((d) => (
        <div key={d.date} className={dayClass(d)}>
          <b aria-current={d.date === board.today ? 'date' : undefined}>{formatWeekday(d.date)}</b>
          <span className={d.full.length > 0 && !d.closed ? 'full' : ''}>
            {d.closed
              ? (d.closedWhy ?? 'closed')
              : d.full.length > 0
                ? fullWords(d.full)
                : d.ferryCancelled
                  ? `no ${delivery}`
                  : d.ferry
                    ? delivery
                    : ''}
            {d.ferry && !d.ferryCancelled && <Delivery name={delivery} />}
          </span>
        </div>
      ))}
      {board.now >= 0 && board.now < board.days.length * perDay(board) && (
        <span
          className="now-mark"
          style={{ left: LABEL + xOf(board.now, perDay(board)) }}
          aria-hidden="true"
        />
      )}
    </div>
  );
}

/** Such as "Post 2 of 2", and how many more fleets are full that day. */
const fullWords = (full: Schemas['FullFleet'][]) =>
  full
    .slice(0, 1)
    .map((f) => `${f.fleet.split(' ')[0]} ${f.off} of ${f.cap}`)
    .join('') + (full.length > 1 ? ` +${full.length - 1}` : '');

/** A small crate: parts come that day. */
function Delivery({ name }: { name: string }) {
  return (
    <svg className="ferry" width="12" height="10" viewBox="0 0 12 10" role="img" aria-label={name}>
      <path d="M0 0h12v3H0z M1 4h4v2h2V4h4v6H1z" />
    </svg>
  );
}

/** A heading over tracks, with what the technicians have left of each day. */
export function TrackGroup({
  title,
  board,
  sums = false,
  children,
}: {
  title: string;
  board: Board;
  sums?: boolean;
  children: React.ReactNode;
}) {
  return (
    <section className="track-group" aria-label={title}>
      <div className="tracks-head">
        <h2 className="track-label">{title}</h2>
        {sums &&
          board.days.map((d) => (
            <span key={d.date} className="day-sum">
              {!d.closed && `${formatHours(d.freeMinutes)} h free`}
              {d.helperMinutes > 0 && <i>{formatHours(d.helperMinutes)} h help</i>}
            </span>
          ))}
      </div>
      {children}
    </section>
  );
}

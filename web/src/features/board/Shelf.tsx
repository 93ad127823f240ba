import { useDraggable } from '@dnd-kit/core';
import { useState } from 'react';
import { hangsAt } from '../../drawing/boardTracks';
import { InterferenceMark, StatusSwatch } from '../../drawing/marks';
import { formatDay, formatHours, formatWeekday } from '../../shared/format';
import { dayClass, type Props } from './boardParts';
import type { Waiting } from './boardQueries';

const SHELF_ROWS = 3;

/** Jobs without a place hang under the day they should be done by. */
export function Shelf(props: Props) {
  const { board, fleet } = props;
  const [opened, setAll] = useState(false);
  // whoever looks at one fleet wants to see all of it
  const all = opened || fleet !== '';
  const days = board.days.map((d) => d.date);
  const shown = board.waiting.filter((w) => fleet === '' || w.fleet === fleet);
  const before = shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === 'before');
  const later = shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === 'later');
  const columns = days.map((_, i) =>
    shown.filter((w) => hangsAt(w.actBy ?? undefined, days) === i),
  );
  const more = (list: Waiting[]) => (all ? list : list.slice(0, SHELF_ROWS));
  const hidden = [before, ...columns].reduce((n, c) => n + c.length - more(c).length, 0);
  return (
    <section className="shelf" aria-label="Jobs that wait, under their act-by day">
      <div className="track-label">
        {more(before).map((w) => (
          <Hanging key={w.jobId} waiting={w} props={props} />
        ))}
      </div>
      {board.days.map((d, i) => (
        <div key={d.date} className={dayClass(d)}>
          {more(columns[i] ?? []).map((w) => (
            <Hanging key={w.jobId} waiting={w} props={props} />
          ))}
          {i === days.length - 1 && later.length > 0 && (
            <button className="link" onClick={() => setAll(!all)}>
              {later.length} hang later
            </button>
          )}
        </div>
      ))}
      {all && later.length > 0 && (
        <div className="later-row">
          <span className="hint">Later:</span>
          {later.map((w) => (
            <Hanging key={w.jobId} waiting={w} props={props} />
          ))}
        </div>
      )}
      {(hidden > 0 || opened) && (
        <button className="link shelf-more" onClick={() => setAll(!all)}>
          {all ? 'fewer' : `${hidden} more wait; show all`}
        </button>
      )}
      {shown.length === 0 && <p className="shelf-empty hint">No job waits for a place.</p>}
    </section>
  );
}

function Hanging({ waiting: w, props }: { waiting: Waiting; props: Props }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
    id: `wait-${w.jobId}`,
    disabled: !props.mayMove,
  });
  const drag = props.mayMove ? { ...attributes, ...listeners } : {};
  const words = w.missed
    ? 'missed'
    : w.status === 'OVERDUE' && w.daysOver
      ? `${w.daysOver} days over`
      : w.actBy
        ? `by ${formatDay(w.actBy)}`
        : 'no date';
  return (
    <button
      ref={setNodeRef}
      className={`hanging${props.chosen === w.jobId ? ' chosen' : ''}${isDragging ? ' carried' : ''}`}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
      data-job={w.jobId}
      {...drag}
      aria-pressed={props.chosen === w.jobId}
      aria-label={`${w.registration} ${formatHours(w.minutes)} h ${words}, waits${w.earliestWhy ? `, not before ${formatWeekday(w.earliest)}: ${w.earliestWhy}` : ''}`}
      onClick={() => props.onSelect(w.jobId)}
    >
      <StatusSwatch status={w.status} />
      <span className="name">{w.registration}</span>
      <span className="note">
        <InterferenceMark value={w.interference} size={9} /> {formatHours(w.minutes)} h {words}
      </span>
    </button>
  );
}

import type { Schemas } from '../api/client';
import { formatMonth, formatNumber } from '../shared/format';

type Month = Schemas['LevelMonth'];

const COLUMN = 51;
const LEFT = 24;
const TALL = 96;
const TOP = 30;

/**
 * Month by month what is left as it is in outline, level as filled bars, and the room as a stroke: days off the road, or hours of
 * work where the fleet may take so many.
 */
export function LevelMonths({ months, hours }: { months: Month[]; hours?: number }) {
  const bars = months.map((m) => ({
    month: m.month,
    left: hours ? m.minutesLeft / 60 : m.daysLeft,
    level: hours ? m.minutesLevel / 60 : m.daysLevel,
    room: hours ?? m.spare,
  }));
  const figure = (n: number) => formatNumber(n, hours ? 1 : 0);
  const unit = hours ? 'h' : 'd';
  const most = Math.max(1, ...bars.flatMap((m) => [m.left, m.level]));
  // the room of a month is often many times what falls into it: the stroke then stands above the picture, and is not drawn
  const top = Math.max(most, ...bars.map((m) => (m.room <= 1.5 * most ? m.room : 0)));
  const y = (n: number) => TOP + TALL - (n / top) * TALL;
  const width = LEFT + months.length * COLUMN + 2;
  const changed = bars.filter((m) => m.left !== m.level);
  return (
    <svg
      className="fleet-months level-months"
      viewBox={`0 0 ${width} ${TOP + TALL + 40}`}
      width="100%"
      role="img"
      aria-label={`${hours ? 'Hours of work' : 'Days off the road'}, left and level. ${changed
        .map((m) => `${formatMonth(m.month)}: ${figure(m.left)}, level ${figure(m.level)}`)
        .join('; ')}`}
    >
      <text x={LEFT} y={12} className="small">
        {`${hours ? 'Hours of work' : 'Days off the road'}: outline as it is, filled level, stroke what there is room for`}
      </text>
      <line x1={LEFT} x2={width} y1={TOP + TALL} y2={TOP + TALL} className="ruler" />
      {bars.map((m, i) => {
        const x = LEFT + i * COLUMN;
        return (
          <g key={m.month}>
            <rect
              x={x + 12}
              y={y(m.level)}
              width={22}
              height={TOP + TALL - y(m.level)}
              className="filled"
            />
            <rect
              x={x + 8}
              y={y(m.left)}
              width={30}
              height={TOP + TALL - y(m.left)}
              className="outline"
            />
            {m.room <= top && (
              <line x1={x + 2} x2={x + COLUMN - 4} y1={y(m.room)} y2={y(m.room)} className="room" />
            )}
            <text x={x + 4} y={TOP + TALL + 15}>
              {formatMonth(m.month).slice(0, 3)}
              {(i === 0 || m.month.endsWith('-01-01')) && (
                <tspan className="year"> {m.month.slice(2, 4)}</tspan>
              )}
            </text>
            {m.left !== m.level && (
              <text x={x + 4} y={TOP + TALL + 32} className="small">
                {`${figure(m.left)} to ${figure(m.level)} ${unit}`}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

import { useRef } from 'react';
import {
  daysBetween,
  distanceUnit,
  formatDate,
  formatDay,
  formatKm,
  formatSpan,
  formatWhole,
  inUnit,
} from '../shared/format';
import { BOX, dateAt, dueWindowShapes, handleAt, type WindowView, type XY } from './dueWindow';

const path = (points: XY[]) =>
  points.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('');

/** The crossing in words: which limit decides, and when. */
export function crossingWords(w: WindowView): [string, string] {
  const c = w.crossing;
  if (!c) return ['No limit is reached', 'within 60 years'];
  if (c.wall === 'AGE') return ['Age decides:', formatDate(c.median)];
  const from = c.from ?? c.median;
  const when = c.to ? formatSpan(from, c.to) : `from ${formatDate(from)}`;
  return [c.corner ? 'Distance or age:' : 'Distance decides:', when];
}

/** The handle that asks what happens on another day. */
export interface WhatIfHandle {
  /** Where it stands; on today while nothing is asked. */
  date: string;
  asking: boolean;
  /** The window under another yearly distance. */
  other?: WindowView;
  /** The answer in words. */
  words?: string;
  onMove: (date: string) => void;
  onWeeks: (n: number) => void;
  onMonths: (n: number) => void;
  onPutBack: () => void;
}

/** Age across, distance up, the limits as walls, the readings as a track, what is to come as a fan. */
export function DueWindowPicture({
  window: w,
  whatIf,
}: {
  window: WindowView;
  whatIf?: WhatIfHandle;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const s = dueWindowShapes(w);
  const right = BOX.width - BOX.right;
  const bottom = BOX.height - BOX.bottom;
  const words = crossingWords(w);
  const binding = w.crossing?.wall;
  const item = w.item.charAt(0).toLowerCase() + w.item.slice(1);
  const limitX = s.limit?.x ?? right;
  const limitY = s.limit?.y ?? BOX.top;
  const label = labelPlace(s, limitX, limitY, bottom);
  return (
    <svg
      ref={svg}
      className="due-window"
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      role={whatIf ? 'group' : 'img'}
      aria-label={`Due window of the ${item}. ${words.join(' ')}. Today ${formatKm(w.today.km)} and ${w.today.months.toFixed(0)} months since its start.`}
    >
      <path className="fan" d={`${path(s.fan)}Z`} />
      {s.other && <Walls at={s.other} right={right} bottom={bottom} className="other-schedule" />}
      {s.other && (s.other.x !== undefined || s.other.y !== undefined) && (
        <text
          className="hint"
          x={s.other.y === undefined ? Math.min(s.other.x ?? right, right) - 4 : BOX.left + 6}
          y={(s.other.y ?? BOX.top) + (Math.abs((s.other.y ?? 0) - limitY) < 14 ? 26 : -4)}
          textAnchor={s.other.y === undefined ? 'end' : 'start'}
        >
          {w.severe ? 'normal use' : 'hard use'}
        </text>
      )}
      <path className="axis" d={`M${BOX.left} ${BOX.top}V${bottom}H${right}`} />
      {s.limit && <Walls at={s.limit} right={right} bottom={bottom} className="limit" />}
      {s.limit?.y !== undefined && binding === 'DISTANCE' && (
        <path className="binding" d={`M${BOX.left} ${s.limit.y}H${limitX}`} />
      )}
      {s.limit?.x !== undefined && binding === 'AGE' && (
        <path className="binding" d={`M${s.limit.x} ${limitY}V${bottom}`} />
      )}
      <path className="median" d={path(s.median)} />
      <path className="track" d={path([...s.track, s.today])} />
      {s.track.slice(1).map((p, i) => (
        <circle key={i} className="reading" cx={p.x} cy={p.y} r={2.6} />
      ))}
      {s.trackOff.map((o, i) => (
        <g key={i}>
          <path className="track" d={`M${o.at.x - 5} ${o.at.y}h10`} />
          <text className="hint" x={o.at.x + 8} y={o.at.y + 10}>
            {formatKm(o.km)}
          </text>
        </g>
      ))}
      {s.rejected.map((r, i) => (
        <g key={i}>
          <path className="rejected" d={`M${r.at.x - 3.5} ${r.at.y - 3.5}l7 7m0 -7l-7 7`} />
          <text
            className="hint"
            x={r.at.x > right - 150 ? r.at.x - 8 : r.at.x + 8}
            textAnchor={r.at.x > right - 150 ? 'end' : 'start'}
            y={Math.min(r.at.y + 4, bottom - 6)}
          >
            {r.reason}
          </text>
        </g>
      ))}
      {s.crossing && (
        <g className="crossing">
          <path d={path([s.crossing.from, s.crossing.to])} />
          {s.crossing.corner && <path d={path([s.crossing.corner.from, s.crossing.corner.to])} />}
        </g>
      )}
      {!whatIf && <circle className="today" cx={s.today.x} cy={s.today.y} r={5} />}
      {words.map((line, i) => (
        <text
          key={i}
          className="words"
          x={label.x}
          y={label.y + i * label.step}
          textAnchor={label.anchor}
        >
          {line}
        </text>
      ))}
      {s.kmTicks.slice(1).map((km) => (
        <g key={km}>
          <path className="tick" d={`M${BOX.left - 4} ${s.y(km)}h4`} />
          <text className="figure" x={BOX.left - 7} y={s.y(km) + 4} textAnchor="end">
            {formatWhole(inUnit(km) / 1000)}
          </text>
          <text className="figure" x={right + 8} y={s.y(km) + 4}>
            {formatWhole(inUnit(w.startKm + km) / 1000)}
          </text>
        </g>
      ))}
      <text className="hint" x={4} y={bottom + 14}>
        1,000 {distanceUnit()}
      </text>
      <text className="hint" x={right + 8} y={bottom + 14}>
        odometer
      </text>
      {s.monthTicks.map((m) => (
        <g key={m}>
          <path className="tick" d={`M${s.x(m)} ${bottom}v4`} />
          {m > 0 && (
            <text className="figure" x={s.x(m)} y={bottom + 16} textAnchor="middle">
              {m}
            </text>
          )}
        </g>
      ))}
      <text className="hint" x={right} y={bottom + 34} textAnchor="end">
        {w.known
          ? `months since the ${item} was renewed, ${formatDate(w.start)}`
          : `renewal not known; drawn from first registration, ${formatDay(w.start)} ${w.start.slice(0, 4)}`}
      </text>
      {whatIf && <Handle w={w} whatIf={whatIf} svg={svg} />}
    </svg>
  );
}

function Walls({
  at,
  right,
  bottom,
  className,
}: {
  at: { x?: number; y?: number };
  right: number;
  bottom: number;
  className: string;
}) {
  const x = at.x ?? right;
  return (
    <g className={className}>
      {at.y !== undefined && <path d={`M${BOX.left} ${at.y}H${x}`} />}
      {at.x !== undefined && <path d={`M${x} ${at.y ?? BOX.top}V${bottom}`} />}
    </g>
  );
}

/** Two lines beside the crossing; for a distance one above the limit and one below it. */
function labelPlace(
  s: ReturnType<typeof dueWindowShapes>,
  limitX: number,
  limitY: number,
  bottom: number,
): { x: number; y: number; step: number; anchor: 'start' | 'end' } {
  const c = s.crossing;
  if (!c) return { x: BOX.left + 8, y: BOX.top + 12, step: 18, anchor: 'start' };
  if (c.wall === 'AGE') {
    const low = c.median.y > (limitY + bottom) / 2;
    return { x: limitX - 8, y: low ? limitY + 18 : bottom - 28, step: 18, anchor: 'end' };
  }
  const roomLeft = c.from.x - BOX.left > 160;
  return roomLeft
    ? { x: c.from.x - 8, y: limitY - 9, step: 28, anchor: 'end' }
    : {
        // clear of the ring that marks today
        x: (Math.abs(s.today.x - c.to.x) < 40 ? Math.max(c.to.x, s.today.x + 4) : c.to.x) + 10,
        y: limitY - 9,
        step: 28,
        anchor: 'start',
      };
}

/** Rides the 50 % line: dragged along the ages, or moved by keys. */
function Handle({
  w,
  whatIf,
  svg,
}: {
  w: WindowView;
  whatIf: WhatIfHandle;
  svg: React.RefObject<SVGSVGElement | null>;
}) {
  // another yearly distance has a line of its own; the picture's scale stays
  const other = whatIf.other && { ...whatIf.other, spanKm: w.spanKm, spanMonths: w.spanMonths };
  const ridden = other ?? w;
  const h = handleAt(ridden, whatIf.date);
  const move = (clientX: number) => {
    const box = svg.current?.getBoundingClientRect();
    if (box) whatIf.onMove(dateAt(w, ((clientX - box.left) / box.width) * BOX.width));
  };
  const keys: Record<string, () => void> = {
    ArrowRight: () => whatIf.onWeeks(1),
    ArrowUp: () => whatIf.onWeeks(1),
    ArrowLeft: () => whatIf.onWeeks(-1),
    ArrowDown: () => whatIf.onWeeks(-1),
    PageUp: () => whatIf.onMonths(1),
    PageDown: () => whatIf.onMonths(-1),
    Home: whatIf.onPutBack,
    Escape: whatIf.onPutBack,
  };
  const days = Math.max(0, daysBetween(w.today.date, whatIf.date));
  return (
    <>
      {other && <path className="what-if-path" d={path(dueWindowShapes(other).median)} />}
      {whatIf.asking && <path className="what-if-path" d={path(h.path)} />}
      <g
        className="handle"
        role="slider"
        tabIndex={0}
        aria-label="What if: wait until"
        aria-valuemin={0}
        aria-valuemax={15 * 365}
        aria-valuenow={days}
        aria-valuetext={whatIf.words ?? `${formatDate(whatIf.date)}, today`}
        onKeyDown={(e) => {
          const act = keys[e.key];
          if (act) {
            e.preventDefault();
            act();
          }
        }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          e.currentTarget.focus();
        }}
        onPointerMove={(e) => {
          if (e.currentTarget.hasPointerCapture(e.pointerId)) move(e.clientX);
        }}
      >
        <circle className="handle-reach" cx={h.at.x} cy={h.at.y} r={14} />
        <circle className="today" cx={h.at.x} cy={h.at.y} r={7} />
        <path className="handle-grip" d={`M${h.at.x - 3} ${h.at.y}h6`} />
      </g>
      {h.off && (
        <text className="hint" x={BOX.width - BOX.right} y={BOX.top + 12} textAnchor="end">
          beyond the picture
        </text>
      )}
    </>
  );
}

import { geoPath } from 'd3-geo';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../api/client';
import { useDark } from '../theme/look';
import { colour } from '../theme/tokens';
import {
  alongWall,
  closest,
  contoursOf,
  CROWD,
  crowdX,
  crowdY,
  grainOf,
  marksOf,
  REACH,
  shareX,
  shareY,
  type Grain,
  type Mark,
} from './crowd';
import { formatNumber } from '../shared/format';

type View = Schemas['AheadView'];

export interface BoxShares {
  ageFrom: number;
  ageTo: number;
  distanceFrom: number;
  distanceTo: number;
}

const MOVE_MS = 240;

/**
 * Every vehicle in one due window scaled to its own limits. Marks move to the day chosen; dragging a box chooses the
 * vehicles inside it.
 */
export function CrowdPicture({
  view,
  box,
  onBox,
  lit,
}: {
  view: View;
  box?: BoxShares;
  onBox: (box?: BoxShares) => void;
  /** The vehicle to point out. */
  lit?: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const navigate = useNavigate();
  const marks = useMemo(() => marksOf(view), [view]);
  const grain = grainOf(view);
  const drawn = useRef(new Map<number, { x: number; y: number }>());
  const [hover, setHover] = useState<Mark>();
  const [drag, setDrag] = useState<{ x: number; y: number; toX: number; toY: number }>();
  const focus = hover?.id ?? lit;
  const dark = useDark();

  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    const from = drawn.current;
    const moving = !still && from.size > 0 && grain !== 'density';
    const begin = performance.now();
    let frame = 0;
    const draw = (now: number) => {
      const t = moving ? Math.min(1, (now - begin) / MOVE_MS) : 1;
      const eased = 1 - (1 - t) ** 3;
      const at = (m: Mark) => {
        const a = from.get(m.id);
        return a && t < 1
          ? { x: a.x + (m.x - a.x) * eased, y: a.y + (m.y - a.y) * eased }
          : { x: m.x, y: m.y };
      };
      paint(context, view, marks, grain, at, focus);
      if (t < 1) frame = requestAnimationFrame(draw);
      else drawn.current = new Map(marks.map((m) => [m.id, { x: m.x, y: m.y }]));
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [view, marks, grain, focus, dark]);

  const place = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect();
    return {
      x: ((e.clientX - r.left) / r.width) * CROWD.width,
      y: ((e.clientY - r.top) / r.height) * CROWD.height,
    };
  };
  const shown = drag
    ? {
        x: Math.min(drag.x, drag.toX),
        y: Math.min(drag.y, drag.toY),
        w: Math.abs(drag.toX - drag.x),
        h: Math.abs(drag.toY - drag.y),
      }
    : box && {
        x: crowdX(box.ageFrom),
        y: crowdY(box.distanceTo),
        w: crowdX(box.ageTo) - crowdX(box.ageFrom),
        h: crowdY(box.distanceFrom) - crowdY(box.distanceTo),
      };
  return (
    <div className="crowd">
      <canvas
        ref={canvas}
        width={CROWD.width * 2}
        height={CROWD.height * 2}
        role="img"
        aria-label={view.words.join(' ')}
        onPointerDown={(e) => {
          const p = place(e);
          e.currentTarget.setPointerCapture(e.pointerId);
          setDrag({ ...p, toX: p.x, toY: p.y });
        }}
        onPointerMove={(e) => {
          const p = place(e);
          if (drag) setDrag({ ...drag, toX: p.x, toY: p.y });
          else setHover(closest(marks, p.x, p.y, 9));
        }}
        onPointerLeave={() => setHover(undefined)}
        onPointerCancel={() => setDrag(undefined)}
        onPointerUp={() => {
          if (!drag) return;
          setDrag(undefined);
          if (Math.abs(drag.toX - drag.x) < 4 && Math.abs(drag.toY - drag.y) < 4) {
            const hit = closest(marks, drag.x, drag.y, 9);
            if (hit) navigate(`/vehicles/${hit.id}`);
            else onBox(undefined);
            return;
          }
          // the last hair of the window holds whatever is beyond it
          const beyond = (share: number) => (share >= REACH - 0.01 ? 1_000 : share);
          onBox({
            ageFrom: Math.max(0, shareX(Math.min(drag.x, drag.toX))),
            ageTo: beyond(shareX(Math.max(drag.x, drag.toX))),
            distanceFrom: Math.max(0, shareY(Math.max(drag.y, drag.toY))),
            distanceTo: beyond(shareY(Math.min(drag.y, drag.toY))),
          });
        }}
      />
      <svg viewBox={`0 0 ${CROWD.width} ${CROWD.height}`} aria-hidden="true">
        <Frame view={view} marks={marks} />
        {shown && (
          <rect className="brush" x={shown.x} y={shown.y} width={shown.w} height={shown.h} />
        )}
        {hover && (
          <text
            className="hover"
            x={hover.x + (hover.x > 620 ? -10 : 10)}
            y={hover.y - 8}
            textAnchor={hover.x > 620 ? 'end' : 'start'}
          >
            {hover.registration}
          </text>
        )}
      </svg>
    </div>
  );
}

function Frame({ view, marks }: { view: View; marks: Mark[] }) {
  const right = crowdX(REACH);
  const bottom = crowdY(0);
  const top = alongWall(marks, 'DISTANCE');
  const side = alongWall(marks, 'AGE');
  const most = Math.max(1, ...top, ...side);
  const length = (n: number) => (n === 0 ? 0 : 4 + (n / most) * 18);
  return (
    <g>
      <path className="axis" d={`M${CROWD.left} ${CROWD.top}V${bottom}H${right}`} />
      <path className="wall" d={`M${CROWD.left} ${crowdY(1)}H${crowdX(1)}V${bottom}`} />
      {[0.25, 0.5, 0.75, 1, 1.25].map((s) => (
        <g key={s}>
          <path className="tick" d={`M${crowdX(s)} ${bottom}v4`} />
          <text className="figure" x={crowdX(s)} y={bottom + 16} textAnchor="middle">
            {Math.round(100 * s)}
          </text>
          <path className="tick" d={`M${CROWD.left} ${crowdY(s)}h-4`} />
          <text className="figure" x={CROWD.left - 7} y={crowdY(s) + 4} textAnchor="end">
            {Math.round(100 * s)}
          </text>
        </g>
      ))}
      <text className="hint" x={right} y={bottom + 34} textAnchor="end">
        age, % of each vehicle’s own limit
      </text>
      <text className="hint" x={CROWD.left - 38} y={12}>
        distance, % of limit
      </text>
      {top.map((n, i) => (
        <g key={`t${i}`} className="along">
          {n > 0 && (
            <>
              <rect
                x={crowdX(i / 10) + 3}
                y={CROWD.top - 2 - length(n)}
                width={crowdX(0.1) - crowdX(0) - 6}
                height={length(n)}
              />
              <text x={crowdX((i + 0.5) / 10)} y={CROWD.top - 5 - length(n)} textAnchor="middle">
                {n}
              </text>
            </>
          )}
        </g>
      ))}
      {side.map((n, i) => (
        <g key={`s${i}`} className="along">
          {n > 0 && (
            <>
              <rect
                x={right + 2}
                y={crowdY((i + 1) / 10) + 3}
                width={length(n)}
                height={crowdY(0) - crowdY(0.1) - 6}
              />
              <text x={right + 6 + length(n)} y={crowdY((i + 0.5) / 10) + 4}>
                {n}
              </text>
            </>
          )}
        </g>
      ))}
      <text className="wall-words" x={crowdX(1) - 6} y={crowdY(1) - 6} textAnchor="end">
        {formatNumber(view.atDistance)} by distance
      </text>
      <text className="wall-words" x={crowdX(1) + 6} y={crowdY(0.02)}>
        {formatNumber(view.atAge)} by age
      </text>
    </g>
  );
}

function paint(
  c: CanvasRenderingContext2D,
  view: View,
  marks: Mark[],
  grain: Grain,
  at: (m: Mark) => { x: number; y: number },
  focus?: number,
) {
  c.setTransform(2, 0, 0, 2, 0, 0);
  c.clearRect(0, 0, CROWD.width, CROWD.height);
  if (view.density) {
    c.save();
    c.beginPath();
    c.rect(CROWD.left, crowdY(1), crowdX(1) - CROWD.left, crowdY(0) - crowdY(1));
    c.clip();
    const path = geoPath(null, c);
    contoursOf(view.density).forEach((contour, i) => {
      c.beginPath();
      path(contour);
      c.fillStyle = colour.ink;
      c.globalAlpha = 0.035;
      c.fill();
      c.globalAlpha = i % 4 === 3 ? 0.9 : 0.45;
      c.strokeStyle = colour.ink2;
      c.lineWidth = i % 4 === 3 ? 1 : 0.6;
      c.stroke();
    });
    c.restore();
  }
  c.globalAlpha = 1;
  const size = grain === 'tails' ? 9 : grain === 'marks' ? 5 : 4;
  const tail = (m: Mark) => {
    const p = at(m);
    c.beginPath();
    c.moveTo(m.fromX, m.fromY);
    c.lineTo(p.x, p.y);
    c.strokeStyle = m.crossing === 0 ? colour.rule : colour.ink2;
    c.lineWidth = 1;
    c.stroke();
  };
  if (grain === 'tails') marks.forEach(tail);
  // those that cross lie above the others
  for (const crossing of [0, 2, 1]) {
    for (const m of marks) {
      if (m.crossing === crossing) mark(c, m, at(m), size, grain === 'tails');
    }
  }
  const focused = marks.find((m) => m.id === focus);
  if (focused) {
    tail(focused);
    const p = at(focused);
    mark(c, focused, p, 9, true);
    c.beginPath();
    c.arc(p.x, p.y, 9, 0, 2 * Math.PI);
    c.strokeStyle = colour.pine;
    c.lineWidth = 2;
    c.stroke();
  }
}

/** A tooth, a ring or a half-filled ring; small, a square, a ring or half a square. */
function mark(
  c: CanvasRenderingContext2D,
  m: Mark,
  p: { x: number; y: number },
  size: number,
  tooth: boolean,
) {
  const r = size / 2;
  const tint = m.crossing === 1 ? colour.ochre : m.crossing === 2 ? colour.madder : colour.ink2;
  c.fillStyle = tint;
  c.strokeStyle = tint;
  c.lineWidth = 1.25;
  c.beginPath();
  if (m.interference === 1) {
    if (tooth) {
      const k = size / 14;
      const at = (x: number, y: number): [number, number] => [p.x + (x - 7) * k, p.y + (y - 7) * k];
      c.moveTo(...at(3.4, 1));
      for (const [x, y] of [
        [5.4, 1],
        [5.4, 4.6],
        [8.6, 4.6],
        [8.6, 1],
        [10.6, 1],
        [13, 13],
        [1, 13],
      ] as const)
        c.lineTo(...at(x, y));
      c.closePath();
    } else c.rect(p.x - r, p.y - r, size, size);
    c.fill();
  } else {
    c.arc(p.x, p.y, r - 0.6, 0, 2 * Math.PI);
    c.fillStyle = colour.paper;
    c.fill();
    c.stroke();
    if (m.interference === 2) {
      c.beginPath();
      c.arc(p.x, p.y, r - 0.6, Math.PI / 2, 1.5 * Math.PI);
      c.fillStyle = tint;
      c.fill();
    }
  }
  // a second sign beside the colour: those that cross carry a bar, those past it already two
  if (m.crossing > 0 && tooth) {
    c.fillRect(p.x - r, p.y + r + 1, size, 1.25);
    if (m.crossing === 2) c.fillRect(p.x - r, p.y + r + 3.25, size, 1.25);
  }
}

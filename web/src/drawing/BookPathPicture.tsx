import { useRef, useState } from 'react';
import type { Schemas } from '../api/client';
import { formatNumber } from '../shared/format';
import { freeRuns, loopPoints, teethOf } from './bookPath';

type Loop = Schemas['LoopView'];

/** What arrow keys move a wheel by, mm; x to the right, y upward. */
const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const tenth = (mm: number) => Math.round(mm * 10) / 10;

/**
 * The loop as the book has it: every tooth, tight and slack runs, rotation, marks, and the order it is laid on. With
 * `onMove` its wheels are dragged, or moved by the arrow keys.
 */
export function BookPathPicture({
  path,
  onMove,
}: {
  path: Loop;
  /** the wheel's new place, mm; `done` once it is let go */
  onMove?: (wheel: number, x: number, y: number, done: boolean) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  // while a wheel is carried the picture keeps its frame, or the wheel would run from the hand
  const [held, setHeld] = useState<{ wheel: number; box: string; dx: number; dy: number }>();
  const at = (e: { clientX: number; clientY: number }) => {
    const m = svg.current!.getScreenCTM()!.inverse();
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(m);
    return { x: p.x, y: -p.y };
  };
  const wheels = path.pulleys;
  const xs = wheels.flatMap((p) => [p.x - p.radiusMm, p.x + p.radiusMm]);
  const ys = wheels.flatMap((p) => [-p.y - p.radiusMm, -p.y + p.radiusMm]);
  const pad = 76;
  const box = [
    Math.min(...xs) - pad,
    Math.min(...ys) - 40,
    Math.max(...xs) - Math.min(...xs) + 2 * pad,
    Math.max(...ys) - Math.min(...ys) + 84,
  ];
  const points = loopPoints(wheels, path.clockwise);
  const teeth = teethOf(points, path.teeth, path.clockwise);
  const runs = freeRuns(wheels, path.clockwise);
  const order = new Map(path.layingOn.map((name, i) => [name, i + 1]));
  const crank = wheels.find((w) => w.role === 'CRANK');
  return (
    <svg
      className="book-path"
      ref={svg}
      viewBox={held?.box ?? box.map((v) => v.toFixed(0)).join(' ')}
      role={onMove ? 'group' : 'img'}
      aria-label={pathWords(path)}
    >
      <path
        className="loop"
        d={points.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${(-p.y).toFixed(1)}`).join('')}
      />
      <path
        className="teeth"
        d={teeth
          .map(
            (t) =>
              `M${t.x.toFixed(1)} ${(-t.y).toFixed(1)}l${(t.nx * 4.5).toFixed(1)} ${(-t.ny * 4.5).toFixed(1)}`,
          )
          .join('')}
      />
      {runs.map((r, i) => (
        <line
          key={r.from}
          className={path.runs[i]?.tight ? 'tight' : 'slack'}
          x1={r.line[0].x}
          y1={-r.line[0].y}
          x2={r.line[1].x}
          y2={-r.line[1].y}
        />
      ))}
      {crank && <Rotation x={crank.x} y={-crank.y} clockwise={path.clockwise} />}
      {wheels.map((p, i) => (
        <g
          key={p.code}
          className={`${p.teeth ? 'wheel toothed' : 'wheel'}${onMove ? ' movable' : ''}`}
          {...(onMove && {
            tabIndex: 0,
            role: 'button',
            'aria-label': `${p.name} at ${formatNumber(p.x, 1)} mm, ${formatNumber(p.y, 1)} mm; arrow keys move it by a millimetre, with Shift by ten`,
            onPointerDown: (e: React.PointerEvent<SVGGElement>) => {
              e.currentTarget.setPointerCapture(e.pointerId);
              const from = at(e);
              setHeld({
                wheel: i,
                box: box.map((v) => v.toFixed(0)).join(' '),
                dx: p.x - from.x,
                dy: p.y - from.y,
              });
            },
            onPointerMove: (e: React.PointerEvent) => {
              if (held?.wheel !== i) return;
              const to = at(e);
              onMove(i, tenth(to.x + held.dx), tenth(to.y + held.dy), false);
            },
            onPointerUp: () => {
              if (held?.wheel !== i) return;
              setHeld(undefined);
              onMove(i, p.x, p.y, true);
            },
            onKeyDown: (e: React.KeyboardEvent) => {
              const step = KEYS[e.key];
              if (!step) return;
              e.preventDefault();
              const by = e.shiftKey ? 10 : 1;
              onMove(i, tenth(p.x + by * step[0]), tenth(p.y + by * step[1]), true);
            },
          })}
        >
          <circle cx={p.x} cy={-p.y} r={Math.max(3, p.radiusMm - 7)} />
          {p.marked && (
            <>
              <path d={`M${p.x - 6} ${-p.y - p.radiusMm - 18}h12l-6 11z`} className="pointer" />
              <path d={`M${p.x - 5} ${-p.y - p.radiusMm + 20}h10l-5 -11z`} className="pointer" />
            </>
          )}
          <text x={p.x} y={-p.y + 5} className="order">
            {order.get(p.name)}
          </text>
          <text {...place(p)}>
            {p.name.toLowerCase()}
            {p.teeth > 0 && ` ${p.teeth}`}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Rotation({ x, y, clockwise }: { x: number; y: number; clockwise: boolean }) {
  const r = 18;
  const s = clockwise ? 1 : -1;
  return (
    <g className="rotation">
      <path d={`M${x - s * r} ${y}A${r} ${r} 0 1 ${clockwise ? 1 : 0} ${x} ${y + r}`} />
      <path d={`M${x + s * 6} ${y + r - 5}L${x} ${y + r}L${x + s * 6} ${y + r + 5}`} />
    </g>
  );
}

function place(p: Loop['pulleys'][number]): {
  x: number;
  y: number;
  textAnchor: 'start' | 'middle' | 'end';
} {
  if (p.radiusMm > 50) return { x: p.x, y: -p.y + 26, textAnchor: 'middle' };
  if (p.role === 'CRANK') return { x: p.x, y: -p.y + p.radiusMm + 24, textAnchor: 'middle' };
  const rightward = p.x > 0 === p.outside;
  return {
    x: p.x + (rightward ? 1 : -1) * (p.radiusMm + 12),
    y: -p.y + 5,
    textAnchor: rightward ? 'start' : 'end',
  };
}

/** Whether the drawing can be the loop that the book describes. */
export function LoopFit({ path }: { path: Loop }) {
  const { fit } = path;
  return (
    <div className="loop-fit" role="status">
      {fit.lengthMm > 0 && (
        <p>
          Length over the wheels {formatNumber(fit.lengthMm)} mm: {formatNumber(fit.teethNeeded, 1)}{' '}
          {path.counted} of {formatNumber(fit.pitchMm, 3)} mm; the book has {path.teeth}.
        </p>
      )}
      {fit.wrong.length > 0 ? (
        <ul>
          {fit.wrong.map((w) => (
            <li key={w} className="warning-note">
              {w}
            </li>
          ))}
        </ul>
      ) : (
        <p className="hint">Length, teeth, tensioner and wheels fit each other.</p>
      )}
    </div>
  );
}

/** The drawing in words. */
export function pathWords(path: Loop): string {
  const name = new Map(path.pulleys.map((p) => [p.code, p.name.toLowerCase()]));
  const slack = path.runs
    .filter((r) => !r.tight)
    .map((r) => `${name.get(r.from)} to ${name.get(r.to)}`);
  return (
    `${path.teeth} ${path.counted}, running ${path.clockwise ? 'clockwise' : 'counter-clockwise'}. ` +
    `Slack from ${slack.join(', ')}; tight everywhere else. ` +
    `Laid on in this order: ${path.layingOn.map((n) => n.toLowerCase()).join(', ')}. ` +
    `${path.marks} ${path.marks === 1 ? 'mark is' : 'marks are'} true at once; ` +
    `paint marks on it are back after ${path.marksReturnTurns} crank turns.`
  );
}

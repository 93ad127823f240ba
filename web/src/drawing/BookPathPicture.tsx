import type { Schemas } from '../api/client';
import { freeRuns, loopPoints, teethOf } from './bookPath';

type Loop = Schemas['LoopView'];

/** The loop as the book has it: every tooth, tight and slack runs, rotation, marks, and the order it is laid on. */
export function BookPathPicture({ path }: { path: Loop }) {
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
      viewBox={box.map((v) => v.toFixed(0)).join(' ')}
      role="img"
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
      {wheels.map((p) => (
        <g key={p.code} className={p.teeth ? 'wheel toothed' : 'wheel'}>
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

import type { Schemas } from '../api/client';
import { freeRuns, loopPoints, teethOf } from './bookPath';
import { turned, type TurnedWheel } from './turning';

type Path = Schemas['PathView'];

/**
 * The loop as it stands after `teeth` crank teeth in running direction: every belt tooth, wheels with their marks
 * turned on, pointers where the marks belong, and paint on the belt where it has gone to.
 */
export function TurningPath({
  path,
  teeth,
  out,
  hideRuns = false,
  note,
}: {
  path: Path;
  teeth: number;
  /** a wheel that stands beside its mark, by degrees in running direction */
  out?: { wheel: string; degrees: number };
  hideRuns?: boolean;
  note?: string;
}) {
  const wheels = turned(path, teeth, out);
  const xs = path.pulleys.flatMap((p) => [p.x - p.radiusMm, p.x + p.radiusMm]);
  const ys = path.pulleys.flatMap((p) => [-p.y - p.radiusMm, -p.y + p.radiusMm]);
  const pad = 74;
  const box = [
    Math.min(...xs) - pad,
    Math.min(...ys) - 30,
    Math.max(...xs) - Math.min(...xs) + 2 * pad,
    Math.max(...ys) - Math.min(...ys) + 66,
  ];
  const points = loopPoints(path.pulleys, path.clockwise);
  const all = teethOf(points, path.teeth, path.clockwise);
  const runs = freeRuns(path.pulleys, path.clockwise);
  const paint = all[((teeth % path.teeth) + path.teeth) % path.teeth];
  return (
    <svg
      className="turning-path"
      viewBox={box.map((v) => v.toFixed(0)).join(' ')}
      role="img"
      aria-label={inWords(path, wheels, note)}
    >
      <path
        className="loop"
        d={points.map((p, i) => `${i ? 'L' : 'M'}${p.x.toFixed(1)} ${(-p.y).toFixed(1)}`).join('')}
      />
      <path
        className="loop-teeth"
        d={all
          .map(
            (t) =>
              `M${t.x.toFixed(1)} ${(-t.y).toFixed(1)}l${(t.nx * 4.5).toFixed(1)} ${(-t.ny * 4.5).toFixed(1)}`,
          )
          .join('')}
      />
      {!hideRuns &&
        runs.map((r, i) => (
          <line
            key={r.from}
            className={path.runs[i]?.pull === 'TIGHT' ? 'tight' : 'slack'}
            x1={r.line[0].x}
            y1={-r.line[0].y}
            x2={r.line[1].x}
            y2={-r.line[1].y}
          />
        ))}
      {paint && (
        <line
          className="paint"
          x1={paint.x - paint.nx * 7}
          y1={-(paint.y - paint.ny * 7)}
          x2={paint.x + paint.nx * 9}
          y2={-(paint.y + paint.ny * 9)}
        />
      )}
      {wheels.map((w) => (
        <g key={w.code} className={w.isTrue === false ? 'wheel off' : 'wheel'}>
          <circle cx={w.x} cy={-w.y} r={w.radiusMm - 6} className={w.teeth ? 'rim' : 'smooth'} />
          <circle cx={w.x} cy={-w.y} r="3" />
          {w.teeth > 0 && (
            <g transform={`rotate(${w.degrees.toFixed(2)} ${w.x} ${-w.y})`}>
              <Spokes wheel={w} />
              {w.marked && (
                <path
                  className="wheel-mark"
                  d={`M${w.x - 6} ${-w.y - w.radiusMm + 22}h12l-6 -13z`}
                />
              )}
            </g>
          )}
          {w.marked && (
            <path className="fixed-mark" d={`M${w.x - 6} ${-w.y - w.radiusMm - 17}h12l-6 11z`} />
          )}
          <text {...place(w)}>
            {w.name.toLowerCase()}
            {w.isTrue !== undefined && (
              <tspan className="state" x={place(w).x} dy="17">
                {w.isTrue ? 'true' : w.opposite ? 'opposite' : 'not true'}
              </tspan>
            )}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Spokes({ wheel: w }: { wheel: TurnedWheel }) {
  const r = w.radiusMm - 8;
  return (
    <path
      className="spokes"
      d={[0, 72, 144, 216, 288]
        .map((a) => {
          const at = ((a + 36) * Math.PI) / 180;
          return `M${w.x} ${-w.y}l${(r * 0.72 * Math.sin(at)).toFixed(1)} ${(-r * 0.72 * Math.cos(at)).toFixed(1)}`;
        })
        .join('')}
    />
  );
}

/** Where a wheel's name stands clear of the loop. */
function place(p: TurnedWheel): { x: number; y: number; textAnchor: 'start' | 'middle' | 'end' } {
  if (p.radiusMm > 50) return { x: p.x, y: -p.y + 24, textAnchor: 'middle' };
  if (p.role === 'CRANK')
    return { x: p.x + p.radiusMm + 14, y: -p.y + p.radiusMm + 8, textAnchor: 'start' };
  const rightward = p.x > 0 === p.outside;
  return {
    x: p.x + (rightward ? 1 : -1) * (p.radiusMm + 10),
    y: -p.y + 6,
    textAnchor: rightward ? 'start' : 'end',
  };
}

function inWords(path: Path, wheels: TurnedWheel[], note?: string): string {
  const marked = wheels.filter((w) => w.isTrue !== undefined);
  const off = marked.filter((w) => !w.isTrue).map((w) => w.name.toLowerCase());
  return [
    `The loop runs ${path.clockwise ? 'clockwise' : 'counter-clockwise'}.`,
    off.length === 0
      ? 'All marks are at their pointers.'
      : `Not at their pointers: ${off.join(', ')}.`,
    note,
  ]
    .filter(Boolean)
    .join(' ');
}

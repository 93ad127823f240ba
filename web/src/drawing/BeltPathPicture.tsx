import type { Schemas } from '../api/client';
import { loopPath } from './beltPath';

/** The loop with its wheels and marks as they stand at the timing position, or half a cam turn on. */
export function BeltPathPicture({
  path,
  opposite,
}: {
  path: Schemas['PathView'];
  opposite: boolean;
}) {
  const xs = path.pulleys.flatMap((p) => [p.x - p.radiusMm, p.x + p.radiusMm]);
  const ys = path.pulleys.flatMap((p) => [-p.y - p.radiusMm, -p.y + p.radiusMm]);
  const pad = 70;
  const box = [
    Math.min(...xs) - pad,
    Math.min(...ys) - 26,
    Math.max(...xs) - Math.min(...xs) + 2 * pad,
    Math.max(...ys) - Math.min(...ys) + 58,
  ];
  return (
    <svg
      className="belt-path"
      viewBox={box.map((v) => v.toFixed(0)).join(' ')}
      role="img"
      aria-label={words(path, opposite)}
    >
      <path className="belt" d={loopPath(path.pulleys, path.clockwise)} />
      <path className="belt-teeth" d={loopPath(path.pulleys, path.clockwise)} />
      {path.pulleys.map((p) => {
        const cam = p.marked && p.role !== 'CRANK';
        const down = cam && opposite;
        const y = -p.y + (down ? 1 : -1) * (p.radiusMm - 16);
        return (
          <g key={p.code} className="wheel">
            <circle
              cx={p.x}
              cy={-p.y}
              r={p.radiusMm - 4}
              className={p.teeth ? 'toothed' : 'smooth'}
            />
            <circle cx={p.x} cy={-p.y} r="3" />
            {p.marked && (
              <path className="fixed-mark" d={`M${p.x - 6} ${-p.y - p.radiusMm - 16}h12l-6 10z`} />
            )}
            {p.marked && (
              <path
                className="wheel-mark"
                d={down ? `M${p.x - 6} ${y}h12l-6 10z` : `M${p.x - 6} ${y + 5}h12l-6 -10z`}
              />
            )}
            <text {...namePlace(p)}>{p.name.toLowerCase()}</text>
          </g>
        );
      })}
    </svg>
  );
}

/** Where a wheel's name stands clear of the loop: in a large wheel, beside one outside, within the loop otherwise. */
function namePlace(p: Schemas['PulleyView']): {
  x: number;
  y: number;
  textAnchor: 'start' | 'middle' | 'end';
} {
  if (p.radiusMm > 50) return { x: p.x, y: -p.y + 24, textAnchor: 'middle' };
  if (p.role === 'CRANK') return { x: p.x, y: -p.y + p.radiusMm + 26, textAnchor: 'middle' };
  const rightward = p.x > 0 === p.outside;
  return {
    x: p.x + (rightward ? 1 : -1) * (p.radiusMm + 10),
    y: -p.y + 6,
    textAnchor: rightward ? 'start' : 'end',
  };
}

function words(path: Schemas['PathView'], opposite: boolean): string {
  const order = path.pulleys.map((p) => p.name.toLowerCase()).join(', ');
  return `The loop runs ${path.clockwise ? 'clockwise' : 'counter-clockwise'} over ${order}. ${
    opposite ? 'The cam marks stand opposite.' : 'All marks are at their pointers.'
  }`;
}

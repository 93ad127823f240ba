/** The loop of a book, drawn to the teeth: runs, arcs and where each tooth sits. */
import { tangent, type Wheel } from './beltPath';

export interface Point {
  x: number;
  y: number;
}

export interface Stretch {
  /** index of the wheel the free run leaves */
  from: number;
  line: [Point, Point];
}

/** Free runs between neighbouring wheels, in running order from the first wheel. */
export function freeRuns(wheels: Wheel[], clockwise: boolean): Stretch[] {
  const sign = clockwise ? 1 : -1;
  return wheels.map((w, i) => {
    const t = tangent(w, wheels[(i + 1) % wheels.length]!, sign);
    return { from: i, line: [t.from, t.to] };
  });
}

/** The loop as points a small step apart, y upward; it ends where it began. */
export function loopPoints(wheels: Wheel[], clockwise: boolean, step = 2): Point[] {
  const runs = freeRuns(wheels, clockwise);
  const points: Point[] = [];
  runs.forEach((run, i) => {
    const [a, b] = run.line;
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const n = Math.max(1, Math.ceil(length / step));
    for (let k = 0; k < n; k++)
      points.push({ x: a.x + ((b.x - a.x) * k) / n, y: a.y + ((b.y - a.y) * k) / n });
    const wheel = wheels[(i + 1) % wheels.length]!;
    const leave = runs[(i + 1) % runs.length]!.line[0];
    const start = Math.atan2(b.y - wheel.y, b.x - wheel.x);
    const end = Math.atan2(leave.y - wheel.y, leave.x - wheel.x);
    // an inner wheel of a clockwise loop is passed clockwise, an outer one the other way
    const turning = clockwise !== wheel.outside ? -1 : 1;
    const angle = (turning * (end - start) + 4 * Math.PI) % (2 * Math.PI);
    const m = Math.max(1, Math.ceil((angle * wheel.radiusMm) / step));
    for (let k = 0; k < m; k++) {
      const at = start + (turning * angle * k) / m;
      points.push({
        x: wheel.x + wheel.radiusMm * Math.cos(at),
        y: wheel.y + wheel.radiusMm * Math.sin(at),
      });
    }
  });
  points.push(points[0]!);
  return points;
}

/** Length of a line through `points`. */
export function lengthOf(points: Point[]): number {
  let sum = 0;
  for (let i = 1; i < points.length; i++)
    sum += Math.hypot(points[i]!.x - points[i - 1]!.x, points[i]!.y - points[i - 1]!.y);
  return sum;
}

export interface Tooth extends Point {
  /** unit vector to the inner side of the loop */
  nx: number;
  ny: number;
}

/** `count` teeth evenly along the loop, the first at its first point. */
export function teethOf(points: Point[], count: number, clockwise: boolean): Tooth[] {
  const pitch = lengthOf(points) / count;
  const teeth: Tooth[] = [];
  let next = 0;
  let gone = 0;
  for (let i = 1; i < points.length && teeth.length < count; i++) {
    const a = points[i - 1]!;
    const b = points[i]!;
    const d = Math.hypot(b.x - a.x, b.y - a.y);
    if (d === 0) continue;
    const side = clockwise ? 1 : -1;
    while (next <= gone + d && teeth.length < count) {
      const t = (next - gone) / d;
      teeth.push({
        x: a.x + (b.x - a.x) * t,
        y: a.y + (b.y - a.y) * t,
        // to the right of the running direction lies the inside of a clockwise loop
        nx: (side * (b.y - a.y)) / d,
        ny: (-side * (b.x - a.x)) / d,
      });
      next += pitch;
    }
    gone += d;
  }
  return teeth;
}

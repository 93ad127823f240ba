/** Geometry of a belt's loop for drawing: tangents between wheels and arcs around them. */

export interface Wheel {
  x: number;
  y: number;
  radiusMm: number;
  outside: boolean;
}

interface Tangent {
  from: { x: number; y: number };
  to: { x: number; y: number };
}

/**
 * The straight run from wheel `a` to wheel `b`. A wheel inside the loop turns with it, one outside the other way;
 * the run touches each on the side that fits. `sign` is 1 for a loop that runs clockwise seen with y upward.
 */
export function tangent(a: Wheel, b: Wheel, sign: number): Tangent {
  const ra = (a.outside ? -1 : 1) * a.radiusMm;
  const rb = (b.outside ? -1 : 1) * b.radiusMm;
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const distance = Math.hypot(dx, dy);
  const base = Math.atan2(dy, dx);
  const tilt = Math.asin(Math.max(-1, Math.min(1, (ra - rb) / distance)));
  // clockwise: the loop keeps its wheels to the right, so it touches them on their left
  const normal = base + sign * (Math.PI / 2 - tilt);
  return {
    from: { x: a.x + ra * Math.cos(normal), y: a.y + ra * Math.sin(normal) },
    to: { x: b.x + rb * Math.cos(normal), y: b.y + rb * Math.sin(normal) },
  };
}

/** The loop as an SVG path with y downward; wheels in running order. */
export function loopPath(wheels: Wheel[], clockwise: boolean): string {
  const sign = clockwise ? 1 : -1;
  const runs = wheels.map((w, i) => tangent(w, wheels[(i + 1) % wheels.length]!, sign));
  const n = (v: number) => v.toFixed(1);
  let d = `M${n(runs[0]!.from.x)} ${n(-runs[0]!.from.y)}`;
  runs.forEach((run, i) => {
    const next = wheels[(i + 1) % wheels.length]!;
    const leave = runs[(i + 1) % runs.length]!.from;
    // on paper y runs down, so a clockwise loop stays clockwise: sweep 1 around inner wheels
    const sweep = clockwise !== next.outside ? 1 : 0;
    const a = Math.atan2(run.to.y - next.y, run.to.x - next.x);
    const b = Math.atan2(leave.y - next.y, leave.x - next.x);
    const turn = (sweep === 1 ? a - b : b - a + 4 * Math.PI) % (2 * Math.PI);
    const angle = turn < 0 ? turn + 2 * Math.PI : turn;
    const large = angle > Math.PI ? 1 : 0;
    d += `L${n(run.to.x)} ${n(-run.to.y)}A${next.radiusMm} ${next.radiusMm} 0 ${large} ${sweep} ${n(leave.x)} ${n(-leave.y)}`;
  });
  return d + 'Z';
}

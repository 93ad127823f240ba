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

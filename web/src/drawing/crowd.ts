import { contourDensity } from 'd3-contour';
import type { Schemas } from '../api/client';

type View = Schemas['AheadView'];

/** The picture in pixels: the window of shares lies inside the margins. */
export const CROWD = { width: 800, height: 560, left: 44, right: 76, top: 44, bottom: 44 } as const;
/** The window reaches this far beyond the limits. */
export const REACH = 1.25;

export const crowdX = (share: number) =>
  CROWD.left +
  (Math.min(Math.max(share, 0), REACH) / REACH) * (CROWD.width - CROWD.left - CROWD.right);
export const crowdY = (share: number) =>
  CROWD.top +
  (1 - Math.min(Math.max(share, 0), REACH) / REACH) * (CROWD.height - CROWD.top - CROWD.bottom);
export const shareX = (x: number) =>
  ((x - CROWD.left) / (CROWD.width - CROWD.left - CROWD.right)) * REACH;
export const shareY = (y: number) =>
  (1 - (y - CROWD.top) / (CROWD.height - CROWD.top - CROWD.bottom)) * REACH;

/** 9 px with tails, 5 px, or density with 4 px marks for those that cross; by marks in view. */
export type Grain = 'tails' | 'marks' | 'density';

export const grainOf = (view: View): Grain =>
  view.density ? 'density' : view.marks.vehicleId.length > 1500 ? 'marks' : 'tails';

export interface Mark {
  id: number;
  registration: string;
  x: number;
  y: number;
  fromX: number;
  fromY: number;
  /** 1 yes, 0 no, 2 unconfirmed */
  interference: number;
  /** 0 no limit by the day, 1 crosses on the way, 2 past a limit today already */
  crossing: number;
  /** the limit reached first: 0 distance, 1 age, 2 none */
  wall: number;
}

/** The marks of a view, in pixels. */
export function marksOf(view: View): Mark[] {
  const m = view.marks;
  return m.vehicleId.map((id, i) => ({
    id,
    registration: m.registration[i]!,
    x: crowdX(m.age[i]! / 1000),
    y: crowdY(m.distance[i]! / 1000),
    fromX: crowdX(m.ageToday[i]! / 1000),
    fromY: crowdY(m.distanceToday[i]! / 1000),
    interference: m.interference[i]!,
    crossing: m.crossing[i]!,
    wall: m.wall[i]!,
  }));
}

/** How many of the crossing marks stand along each tenth of a wall. */
export function alongWall(marks: Mark[], wall: 'DISTANCE' | 'AGE'): number[] {
  const bins = Array.from({ length: 10 }, () => 0);
  for (const m of marks) {
    if (m.crossing !== 1 || m.wall !== (wall === 'DISTANCE' ? 0 : 1)) continue;
    const along = wall === 'DISTANCE' ? shareX(m.x) : shareY(m.y);
    bins[Math.min(9, Math.max(0, Math.floor(along * 10)))]! += 1;
  }
  return bins;
}

/** Contours of density, in pixels, from the counts of the grid's cells. */
export function contoursOf(density: NonNullable<View['density']>) {
  const { cells, reach, counts } = density;
  const points = counts.flatMap((weight, i) =>
    weight === 0
      ? []
      : [
          {
            x: crowdX((((i % cells) + 0.5) / cells) * reach),
            y: crowdY(((Math.floor(i / cells) + 0.5) / cells) * reach),
            weight,
          },
        ],
  );
  return contourDensity<(typeof points)[number]>()
    .x((p) => p.x)
    .y((p) => p.y)
    .weight((p) => p.weight)
    .size([CROWD.width, CROWD.height])
    .bandwidth(11)
    .thresholds(12)(points);
}

/** The mark closest to a place, at most `within` px off. */
export function closest(marks: Mark[], x: number, y: number, within: number): Mark | undefined {
  let best: Mark | undefined;
  let least = within * within;
  for (const m of marks) {
    const d = (m.x - x) ** 2 + (m.y - y) ** 2;
    if (d <= least) {
      least = d;
      best = m;
    }
  }
  return best;
}

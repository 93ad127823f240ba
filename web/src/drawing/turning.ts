/** How wheels stand after the loop has been turned on; plain geometry for drawing. */
import type { Schemas } from '../api/client';

export type TurnedWheel = Schemas['PulleyView'] & {
  /** turned from where its mark was true, clockwise on paper, in [0, 360) */
  degrees: number;
  /** for a marked wheel, whether its mark stands at its pointer */
  isTrue?: boolean;
  /** its mark stands at the far side */
  opposite: boolean;
};

const round = (degrees: number) => ((degrees % 360) + 360) % 360;

/** The wheels of `path` after `teeth` teeth have passed in running direction. */
export function turned(
  path: Schemas['PathView'],
  teeth: number,
  out?: { wheel: string; degrees: number },
): TurnedWheel[] {
  return path.pulleys.map((p) => {
    // a wheel inside the loop turns with it, one outside the other way
    const way = (path.clockwise ? 1 : -1) * (p.outside ? -1 : 1);
    const beside = out?.wheel === p.code ? out.degrees : 0;
    const degrees = p.teeth ? round(way * ((teeth * 360) / p.teeth + beside)) : 0;
    return {
      ...p,
      degrees,
      isTrue: p.marked ? degrees < 0.01 || degrees > 359.99 : undefined,
      opposite: Math.abs(degrees - 180) < 0.01,
    };
  });
}

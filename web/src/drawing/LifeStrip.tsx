import { useId } from 'react';
import type { Schemas } from '../api/client';

const WIDTH = 196;
const HEIGHT = 32;
/** Where the limit stands; the rest of the width shows what lies beyond. */
const LIMIT = 0.8 * WIDTH;

const at = (share: number) => Math.min(share, 1.22) * LIMIT;

function Line({
  y,
  share,
  soon,
  binding,
  hatch,
}: {
  y: number;
  share: number;
  soon?: number;
  binding: boolean;
  hatch: string;
}) {
  const end = at(share);
  return (
    <g>
      <path className={binding ? 'life binding' : 'life'} d={`M0 ${y}H${Math.min(end, LIMIT)}`} />
      {share > 1 && (
        <rect
          className="life-over"
          x={LIMIT}
          y={y - 4}
          width={Math.max(end - LIMIT, 3)}
          height={8}
          fill={`url(#${hatch})`}
        />
      )}
      {soon !== undefined && soon > share && (
        <path className="life-soon" d={`M${end} ${y}H${at(soon)}`} />
      )}
      <path className="life-today" d={`M${end} ${y - 5}v10`} />
    </g>
  );
}

/** Distance above age, both to one limit stroke: how much of the drive's life is used. */
export function LifeStrip({ life }: { life: Schemas['LifeStrip'] }) {
  const hatch = useId();
  const words =
    life.distance === undefined && life.age === undefined
      ? 'No clock can be counted'
      : [
          life.distance === undefined ? '' : `${Math.round(100 * life.distance)} % of the distance`,
          life.age === undefined ? '' : `${Math.round(100 * life.age)} % of the age`,
        ]
          .filter(Boolean)
          .join(', ');
  return (
    <svg
      className="life-strip"
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={words}
    >
      <defs>
        <pattern
          id={hatch}
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="5" height="5" className="hatch-ground" />
          <rect width="3" height="5" className="hatch-stroke" />
        </pattern>
      </defs>
      {life.distance === undefined && life.age === undefined ? (
        <g>
          <path className="life-unknown" d={`M0 10H${LIMIT}M0 22H${LIMIT}`} />
          <text x={LIMIT + 6} y={20} className="hint">
            ?
          </text>
        </g>
      ) : (
        <g>
          {life.distance !== undefined && (
            <Line
              y={10}
              share={life.distance}
              soon={life.distanceSoon}
              binding={life.binding === 'DISTANCE'}
              hatch={hatch}
            />
          )}
          {life.age !== undefined && (
            <Line
              y={22}
              share={life.age}
              soon={life.ageSoon}
              binding={life.binding === 'AGE'}
              hatch={hatch}
            />
          )}
        </g>
      )}
      <path className="life-limit" d={`M${LIMIT} 2V30`} />
    </svg>
  );
}

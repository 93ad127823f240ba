import { layOut, type GraphStep } from './accessGraph';

const WIDE = 178;
const HIGH = 40;
const GAP_X = 34;
const GAP_Y = 12;

/** Access steps from left to right, each after what must be off before it; dashed: only with that equipment. */
export function AccessGraph({ steps }: { steps: GraphStep[] }) {
  const placed = layOut(steps);
  const at = new Map(placed.map((p) => [p.step.code, p]));
  const x = (layer: number) => layer * (WIDE + GAP_X);
  const y = (row: number) => row * (HIGH + GAP_Y);
  const width = x(Math.max(0, ...placed.map((p) => p.layer))) + WIDE + 2;
  const height = y(Math.max(0, ...placed.map((p) => p.row))) + HIGH + 2;
  const words = steps
    .map(
      (s) =>
        `${s.title}, ${s.minutes} minutes${s.equipment ? `, only with ${s.equipment}` : ''}${
          s.requires.length > 0
            ? `, after ${s.requires.map((r) => at.get(r)?.step.title.toLowerCase() ?? r).join(' and ')}`
            : ''
        }`,
    )
    .join('. ');
  return (
    <div className="access-graph" tabIndex={0} role="group" aria-label="Access steps">
      <svg
        width={width}
        height={height}
        viewBox={`-1 -1 ${width} ${height}`}
        role="img"
        aria-label={words}
      >
        {placed.flatMap((p) =>
          p.step.requires.flatMap((r) => {
            const from = at.get(r);
            if (!from) return [];
            const x1 = x(from.layer) + WIDE;
            const y1 = y(from.row) + HIGH / 2;
            const x2 = x(p.layer);
            const y2 = y(p.row) + HIGH / 2;
            return [
              <path
                key={`${r}>${p.step.code}`}
                className="edge"
                d={`M${x1} ${y1}C${x1 + GAP_X / 2} ${y1} ${x2 - GAP_X / 2} ${y2} ${x2} ${y2}`}
              />,
            ];
          }),
        )}
        {placed.map((p) => (
          <g
            key={p.step.code}
            transform={`translate(${x(p.layer)} ${y(p.row)})`}
            className={p.step.equipment ? 'switched' : ''}
          >
            <rect width={WIDE} height={HIGH} />
            <text x="7" y="16">
              {shorten(p.step.title)}
            </text>
            <text x="7" y="32" className="minutes">
              {p.step.minutes} min{p.step.equipment && `, with ${p.step.equipment}`}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

/** Long titles lose their middle. */
const shorten = (title: string) =>
  title.length <= 26 ? title : `${title.slice(0, 14)}…${title.slice(-10)}`;

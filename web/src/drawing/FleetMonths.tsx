import type { Schemas } from '../api/client';
import { formatNumber, vehicleCount } from '../shared/format';
import { StatusSwatch } from './marks';

type Month = Schemas['FleetMonthView'];
type Vehicle = Schemas['FleetVehicleView'];

const COLUMN = 51;
const LEFT = 24;
const FAN = 96;
const RULER = FAN + 26;
const SWATCH = 16;

const monthName = (iso: string) =>
  new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' }).format(
    new Date(`${iso}T00:00:00Z`),
  );

const swatchWords = (v: Vehicle) =>
  `${v.registration}, ${v.statusWords}${v.plannedOn ? ', planned' : ''}`;

/** Steps of how many vehicles have a limit behind them at each month's end. */
function steps(months: Month[], of: (m: Month) => number, most: number) {
  const y = (n: number) => FAN - (n / Math.max(1, most)) * (FAN - 20);
  return months
    .map((m, i) => {
      const x = LEFT + i * COLUMN;
      return `${i === 0 ? 'M' : 'L'}${x} ${y(of(m))}L${x + COLUMN} ${y(of(m))}`;
    })
    .join('');
}

/**
 * Months across. Below the ruler each vehicle hangs in the month it counts on, in the pattern of its status; above it stands
 * how many would have a limit behind them if nothing were done, with chances of 10, 50 and 90 %.
 */
export function FleetMonths({
  months,
  vehicles,
  chosen,
  onChoose,
}: {
  months: Month[];
  vehicles: Map<number, Vehicle>;
  chosen?: string;
  onChoose: (month: string | undefined) => void;
}) {
  const deepest = Math.max(3, ...months.map((m) => m.vehicleIds.length));
  const last = months.at(-1);
  const most = Math.max(1, ...months.map((m) => m.reachedEarly));
  const height = RULER + 14 + deepest * SWATCH + 34;
  const width = LEFT + months.length * COLUMN + 2;
  return (
    <svg
      className="fleet-months"
      viewBox={`0 0 ${width} ${height}`}
      width="100%"
      role="group"
      aria-label="What comes due month by month; the table below has the same figures"
    >
      <text x={LEFT} y={10} className="small">
        Past a limit in the book at the month’s end, were nothing done: with even chance, dashed
        with 10 and 90 %
      </text>
      <text x={width - 4} y={FAN - 4} textAnchor="end" className="small">
        {`in the end ${formatNumber(last?.reachedMedian ?? 0)}, ${formatNumber(last?.reachedLate ?? 0)} to ${formatNumber(last?.reachedEarly ?? 0)}`}
      </text>
      <path className="reach early" d={steps(months, (m) => m.reachedEarly, most)} />
      <path className="reach median" d={steps(months, (m) => m.reachedMedian, most)} />
      <path className="reach late" d={steps(months, (m) => m.reachedLate, most)} />
      <line x1={LEFT} x2={width} y1={RULER} y2={RULER} className="ruler" />
      {months.map((m, i) => {
        const x = LEFT + i * COLUMN;
        const on = chosen === m.month;
        const withYear = i === 0 || m.month.endsWith('-01-01');
        // begins with what is written there, so that whoever says it aloud is understood
        const written = [
          monthName(m.month),
          withYear && m.month.slice(2, 4),
          ...m.vehicleIds.map((id) => vehicles.get(id)).map((v) => v && swatchWords(v)),
          m.sum.vehicles > 0 && `${m.over ? 'over: ' : ''}${m.sum.offRoadDays}/${m.spare} d`,
        ]
          .filter(Boolean)
          .join(' ');
        const label = `${written}, ${m.month.slice(0, 4)}: ${vehicleCount(m.sum.vehicles)}, ${m.sum.offRoadDays} days off the road of ${m.spare}`;
        return (
          <g
            key={m.month}
            role="button"
            tabIndex={0}
            aria-pressed={on}
            aria-label={label}
            className={`month${on ? ' on' : ''}`}
            onClick={() => onChoose(on ? undefined : m.month)}
            onKeyDown={(e) => {
              if (e.key === 'Enter' || e.key === ' ') {
                e.preventDefault();
                onChoose(on ? undefined : m.month);
              }
            }}
          >
            <rect
              x={x}
              y={RULER - 22}
              width={COLUMN}
              height={height - RULER + 20}
              className="ground"
            />
            <line x1={x} x2={x} y1={RULER - 5} y2={RULER + 5} className="tick" />
            <text x={x + 4} y={RULER - 8}>
              {monthName(m.month)}
              {withYear && <tspan className="year"> {m.month.slice(2, 4)}</tspan>}
            </text>
            {m.vehicleIds.map((id, k) => {
              const v = vehicles.get(id);
              if (!v) return null;
              return (
                <g key={id} transform={`translate(${x + 12} ${RULER + 8 + k * SWATCH})`}>
                  <title>{swatchWords(v)}</title>
                  <StatusSwatch status={v.status} />
                  {v.plannedOn && <path d="M26 2v8" className="planned" />}
                </g>
              );
            })}
            {m.sum.vehicles > 0 && (
              <text x={x + 4} y={RULER + 26 + m.vehicleIds.length * SWATCH} className="small">
                <tspan className={m.over ? 'over' : ''}>
                  {m.over ? 'over: ' : ''}
                  {m.sum.offRoadDays}
                </tspan>
                /{m.spare} d
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}

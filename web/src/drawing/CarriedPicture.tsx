import type { Schemas } from '../api/client';
import { formatDate, formatMoney } from '../shared/format';

const WIDTH = 900;
const LEFT = 84;
const TALL = 110;
const TOP = 10;

/** Exposure carried day by day through a month, as steps from zero. */
export function CarriedPicture({
  days,
  currency,
}: {
  days: Schemas['CarriedDay'][];
  currency: string;
}) {
  const first = days[0];
  const last = days.at(-1);
  if (!first || !last) return null;
  const most = Math.max(1, ...days.map((d) => d.perDayMinor));
  const dearest = days.reduce((a, b) => (b.perDayMinor > a.perDayMinor ? b : a));
  const begin = Date.parse(first.on);
  const span = Math.max(1, (Date.parse(last.on) - begin) / 86_400_000);
  const x = (on: string) =>
    LEFT + ((Date.parse(on) - begin) / 86_400_000 / span) * (WIDTH - LEFT - 90);
  const y = (n: number) => TOP + TALL - (n / most) * TALL;
  const line = days
    .map((d, i) =>
      i === 0 ? `M${x(d.on)} ${y(d.perDayMinor)}` : `H${x(d.on)}V${y(d.perDayMinor)}`,
    )
    .join('');
  const words = `Exposure carried: ${formatMoney(Math.round(first.perDayMinor), currency)} a day on ${formatDate(first.on)}, ${formatMoney(Math.round(last.perDayMinor), currency)} on ${formatDate(last.on)}; the most on ${formatDate(dearest.on)}.`;
  return (
    <figure className="carried">
      <svg viewBox={`0 0 ${WIDTH} ${TOP + TALL + 24}`} width="100%" role="img" aria-label={words}>
        <line x1={LEFT} x2={WIDTH - 90} y1={TOP + TALL} y2={TOP + TALL} className="axis" />
        <line x1={LEFT - 4} x2={WIDTH - 90} y1={TOP} y2={TOP} className="most" />
        <text x={LEFT - 8} y={TOP + 5} textAnchor="end">
          {formatMoney(Math.round(most), currency)}
        </text>
        <text x={LEFT - 8} y={TOP + TALL} textAnchor="end">
          a day, 0
        </text>
        <path d={line} className="run" />
        <text x={LEFT} y={TOP + TALL + 17}>
          {formatDate(first.on)}
        </text>
        <text x={WIDTH - 90} y={TOP + TALL + 17} textAnchor="middle">
          {formatDate(last.on)}
        </text>
      </svg>
      <figcaption className="hint">{words}</figcaption>
    </figure>
  );
}

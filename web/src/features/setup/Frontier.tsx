import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { amountNear, roundAmount, sheetOf, type Choice } from '../../drawing/frontier';
import { formatNumber, minorPerUnit } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';
import { outlookQuery } from './setupQueries';

type Workshop = Schemas['WorkshopView'];
type Year = Schemas['YearView'];

const WIDTH = 400;
const HEIGHT = 190;
const LEFT = 40;
const TOP = 22;
const PAUSE_MS = 400;

const choice = (p: Schemas['FrontierPoint']): Choice => ({
  amount: p.amount,
  cost: p.year.costMinor,
  breakdowns: p.year.breakdowns,
});

/** What the figures on the form mean for the workshop's own vehicles, and what else it could choose. */
export function Frontier({
  w,
  onStranding,
}: {
  w: Workshop;
  /** Somebody drags the ring along the line of the cheapest day. */
  onStranding: (amount: number) => void;
}) {
  const asked = useSettled(w);
  const { data: f, error, isFetching, refetch } = useQuery(outlookQuery(asked));
  if (!f) {
    return (
      <section className="frontier">
        <h2>What it means in a year</h2>
        {error ? (
          <ProblemNote error={error} retry={() => refetch()} />
        ) : (
          <p className="hint" role="status">
            Reckoning what this means for our vehicles.
          </p>
        )}
      </section>
    );
  }
  if (f.reckoned === 0) {
    return (
      <section className="frontier">
        <h2>What it means in a year</h2>
        <p className="hint">
          What a policy means in breakdowns and money shows here once there are vehicles in use
          whose engine has limits in its book.
        </p>
      </section>
    );
  }
  return (
    <section className="frontier" aria-busy={isFetching}>
      <h2>What it means in a year</h2>
      <Drawing f={f} w={w} onStranding={onStranding} />
      <Twin f={f} />
      <p className="hint">
        {f.reckoned < f.vehicles
          ? `Reckoned on ${formatNumber(f.reckoned)} of ${formatNumber(f.vehicles)} vehicles, spread over all.`
          : `For ${formatNumber(f.vehicles)} vehicles in use.`}{' '}
        {f.leftOut > 0 && `${formatNumber(f.leftOut)} more have no limits to reckon by. `}A year
        once every drive has been renewed so, at each vehicle&apos;s own use, with the assumed wear;
        it supposes that owners come when they are asked.
      </p>
    </section>
  );
}

/** `value` once it has stayed the same for a moment: a year is not reckoned for every key. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [value]);
  return settled;
}

function Drawing({
  f,
  w,
  onStranding,
}: {
  f: Schemas['FrontierView'];
  w: Workshop;
  onStranding: (amount: number) => void;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const early = f.early.map(choice);
  const careful = f.careful.map(choice);
  const now = { cost: f.now.costMinor, breakdowns: f.now.breakdowns };
  const chosen = { cost: f.proposed.costMinor, breakdowns: f.proposed.breakdowns };
  const sheet = sheetOf([...early, ...careful, now, chosen], WIDTH, HEIGHT);
  const path = (line: Choice[]) =>
    line
      .map((c) => sheet.at(c.cost, c.breakdowns))
      .map((s, i) => `${i === 0 ? 'M' : 'L'}${s.x},${s.y}`)
      .join('');
  const spot = sheet.at(chosen.cost, chosen.breakdowns);
  const was = sheet.at(now.cost, now.breakdowns);
  const drag = (e: React.PointerEvent) => {
    if (e.buttons === 0 || !svg.current) return;
    const box = svg.current.getBoundingClientRect();
    const scale = (WIDTH + LEFT + 20) / box.width;
    const at = {
      x: (e.clientX - box.left) * scale - LEFT,
      y: (e.clientY - box.top) * scale - TOP,
    };
    onStranding(roundAmount(amountNear(careful, sheet, at)));
  };
  const most = careful.at(-1)?.amount ?? 0;
  const step = (by: number) =>
    onStranding(
      Math.min(most, Math.max(0, roundAmount(w.stranding + by * Math.max(500, w.stranding / 5)))),
    );
  const price = `${formatNumber(w.stranding)} ${f.currency} for a stranding`;
  return (
    <svg
      ref={svg}
      viewBox={`${-LEFT} ${-TOP} ${WIDTH + LEFT + 20} ${HEIGHT + TOP + 44}`}
      role="group"
      aria-label="Breakdowns and money a year, by policy"
    >
      <g className="frontier-axes" aria-hidden="true">
        {sheet.breakdowns.map((b) => (
          <g key={b} transform={`translate(0,${sheet.at(0, b).y})`}>
            <line x2={WIDTH} />
            <text x={-8} y={4} textAnchor="end">
              {formatNumber(b, 2)}
            </text>
          </g>
        ))}
        {sheet.costs.map((c) => (
          <text key={c} x={sheet.at(c, 0).x} y={HEIGHT + 18} textAnchor="middle">
            {formatNumber(c / (1_000 * minorPerUnit(f.currency)), 1)}
          </text>
        ))}
        <text x={-LEFT} y={-8}>
          breakdowns a year
        </text>
        <text x={WIDTH} y={HEIGHT + 36} textAnchor="end">
          jobs and breakdowns, thousand {f.currency} a year
        </text>
      </g>
      <g className="frontier-early">
        <path d={path(early)} />
        {early.map((c) => {
          const s = sheet.at(c.cost, c.breakdowns);
          return (
            <g key={c.amount} transform={`translate(${s.x},${s.y})`}>
              <circle r={3.5} />
              <text x={6} y={-6}>
                {c.amount === 1 ? 'book' : `${Math.round(100 * c.amount)} %`}
              </text>
            </g>
          );
        })}
      </g>
      <g className="frontier-careful">
        <path d={path(careful)} />
        {careful.map((c) => {
          const s = sheet.at(c.cost, c.breakdowns);
          return <rect key={c.amount} x={s.x - 3.5} y={s.y - 3.5} width={7} height={7} />;
        })}
      </g>
      <g className="frontier-now" transform={`translate(${was.x},${was.y})`}>
        <path d="M0,-7L7,0L0,7L-7,0Z" />
        <text x={-12} y={4} textAnchor="end">
          now
        </text>
      </g>
      <g
        className="frontier-chosen"
        transform={`translate(${spot.x},${spot.y})`}
        role="slider"
        tabIndex={0}
        aria-label="What a stranding is worth, dragged along the line of the cheapest day"
        aria-valuemin={0}
        aria-valuemax={most}
        aria-valuenow={w.stranding}
        aria-valuetext={price}
        onPointerDown={(e) => (e.target as Element).setPointerCapture?.(e.pointerId)}
        onPointerMove={drag}
        onKeyDown={(e) => {
          if (e.key === 'ArrowRight' || e.key === 'ArrowUp') step(1);
          else if (e.key === 'ArrowLeft' || e.key === 'ArrowDown') step(-1);
          else return;
          e.preventDefault();
        }}
      >
        <circle r={16} className="grip" />
        <circle r={8} />
      </g>
    </svg>
  );
}

/** The drawing in words. */
function Twin({ f }: { f: Schemas['FrontierView'] }) {
  const rows: [string, (y: Year) => string][] = [
    ['Breakdowns expected', (y) => formatNumber(y.breakdowns, 2)],
    ['Planned jobs', (y) => formatNumber(y.jobs, 1)],
    ['of them on a visit for other work', (y) => formatNumber(y.atVisits, 1)],
    ['of them past the book', (y) => formatNumber(y.pastTheBook, 1)],
    [
      'Jobs and breakdowns by their bills',
      (y) => `${formatNumber(y.costMinor / minorPerUnit(f.currency))} ${f.currency}`,
    ],
    ['Labour', (y) => `${formatNumber(y.hours, 0)} h`],
  ];
  return (
    <>
      <ul className="key" aria-hidden="true">
        <li className="key-early">at a share of the limits</li>
        <li className="key-careful">on the cheapest day, by the price of a stranding</li>
        <li className="key-chosen">as chosen here; drag it</li>
      </ul>
      <table className="plain">
        <thead>
          <tr>
            <th>A year</th>
            <th className="num">Now</th>
            <th className="num">As chosen</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([words, figure]) => (
            <tr key={words}>
              <td>{words}</td>
              <td className="num">{figure(f.now)}</td>
              <td className="num">{figure(f.proposed)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

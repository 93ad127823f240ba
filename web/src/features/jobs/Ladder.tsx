import type { Schemas } from '../../api/client';
import { formatHours } from '../../shared/format';

/** Each access step once, as wide as its minutes, with the items that share it. */
export function Ladder({ job }: { job: Schemas['JobView'] }) {
  const longest = Math.max(...job.steps.map((s) => s.minutes), 1);
  const names = new Map(
    job.lines.filter((l) => l.kind === 'ITEM').map((l) => [l.code, l.name.toLowerCase()]),
  );
  return (
    <ol className="ladder">
      {job.steps.map((s) => (
        <li key={s.code}>
          <span className="rung-title">{s.title}</span>
          <span className="rung">
            <span
              className={s.neededBy.length > 1 ? 'bar shared' : 'bar'}
              style={{ width: `${(100 * s.minutes) / longest}%` }}
            />
          </span>
          <span className="num">{s.minutes} min</span>
          <span className="second">
            {s.neededBy.length > 1 ? `shared by ${s.neededBy.length}: ` : 'only '}
            {s.neededBy.map((c) => names.get(c) ?? c).join(', ')}
          </span>
        </li>
      ))}
      <li className="sum">
        <span className="rung-title">Together</span>
        <span />
        <span className="num">{formatHours(job.minutes)} h</span>
      </li>
    </ol>
  );
}

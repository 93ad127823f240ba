import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatHours, formatMoney } from '../../shared/format';

type Job = Schemas['JobView'];

/**
 * Each access step once, as wide as its minutes. Brackets on the left join the steps an item needs; the items of the
 * step under the pointer or focus stand out, and what each item adds alone is written beside its bracket.
 */
export function Ladder({ job, currency }: { job: Job; currency: string }) {
  const [item, setItem] = useState<string>();
  const longest = Math.max(...job.steps.map((s) => s.minutes), 1);
  const items = job.lines.filter((l) => l.kind === 'ITEM' && l.included);
  const names = new Map(
    job.lines.filter((l) => l.kind === 'ITEM').map((l) => [l.code, l.name.toLowerCase()]),
  );
  return (
    <div className="ladder-box">
      <div className="adds" role="group" aria-label="What each item adds">
        {items.map((l) => (
          <button
            key={l.code}
            className={item === l.code ? 'on' : ''}
            aria-pressed={item === l.code}
            onClick={() => setItem(item === l.code ? undefined : l.code)}
          >
            {l.name}{' '}
            <span className="figure">
              {l.minutes === 0 ? 'all shared' : `+${formatHours(l.minutes)} h`}
            </span>{' '}
            <span className="hint">+{formatMoney(l.nowMinor, currency)}</span>
          </button>
        ))}
      </div>
      <ol className="ladder">
        {job.steps.map((s) => {
          const many = s.neededBy.length > 1;
          const lit = item === undefined || s.neededBy.includes(item);
          return (
            <li key={s.code} className={lit ? '' : 'dim'}>
              <span className="brackets" aria-hidden="true">
                {items.map((l) => (
                  <i key={l.code} className={s.neededBy.includes(l.code) ? 'held' : ''} />
                ))}
              </span>
              <span className="rung-title">{s.title}</span>
              <span className="rung">
                <span
                  className={many ? 'bar shared' : 'bar'}
                  style={{ width: `${(100 * s.minutes) / longest}%` }}
                />
              </span>
              <span className="num">{s.minutes} min</span>
              <span className="second">
                {many
                  ? s.neededBy.length === items.length
                    ? 'shared by all'
                    : `shared by ${s.neededBy.length}: ${s.neededBy.map((c) => names.get(c) ?? c).join(', ')}`
                  : `only ${s.neededBy.map((c) => names.get(c) ?? c).join(', ')}`}
              </span>
            </li>
          );
        })}
        <li className="sum">
          <span className="brackets" />
          <span className="rung-title">Together</span>
          <span className="hint">{formatHours(job.sharedMinutes)} h of it shared</span>
          <span className="num">{formatHours(job.minutes)} h</span>
        </li>
      </ol>
    </div>
  );
}

import { Checkbox } from 'antd';
import { Fragment, useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { formatHours, formatMoney } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { useBuild } from './jobQueries';
import { LineForm } from './LineForm';

type Job = Schemas['JobView'];
type Line = Job['lines'][number];

const COLUMNS = [
  { school: 'EVERYTHING', head: 'all', words: 'everything behind the cover' },
  { school: 'WHAT_PAYS', head: 'pays', words: 'what pays' },
  { school: 'BOOK_MINIMUM', head: 'min', words: 'book minimum' },
] as const;

/** One row an item: in or out, why, what each school would do, what it costs now, later, and saves. */
export function BundleTable({ job, editable }: { job: Job; editable: boolean }) {
  const { currency } = useMe();
  const build = useBuild(job);
  const [open, setOpen] = useState<string>();
  const items = job.lines.filter((l) => l.kind === 'ITEM');
  // what leaving would cost is no question any more
  const closed = job.stage === 'DONE' || job.stage === 'CANCELLED';
  const follows = job.lines.filter((l) => l.kind === 'FOLLOWS');
  const asked = build.isPending ? build.variables.decisions : undefined;
  const toggle = (l: Line, on: boolean) => {
    // a rule is only overruled in words
    if (l.rule !== 'OFFERED') return setOpen(l.code);
    build.mutate({
      decisions: {
        ...Object.fromEntries(items.flatMap((i) => (i.decision ? [[i.code, i.decision]] : []))),
        [l.code]: { in: on },
      },
    });
  };
  return (
    <>
      {!(build.error instanceof Problem && open) && <ProblemNote error={build.error} />}
      <table className="plain lines">
        <thead>
          <tr>
            <th>
              <span className="unseen">Taken in</span>
            </th>
            <th>Item and reason</th>
            {COLUMNS.map((c) => (
              <th key={c.school} className="school" title={c.words}>
                {c.head}
              </th>
            ))}
            <th className="num">Time</th>
            <th className="num">Now</th>
            <th className="num">Later</th>
            <th className="num">Saves</th>
          </tr>
        </thead>
        <tbody>
          {items.map((l) => {
            const on = asked?.[l.code]?.in ?? l.included;
            return (
              <Fragment key={l.code}>
                <tr className={on ? '' : 'left-out'}>
                  <td className="tick">
                    <Checkbox
                      aria-label={`${l.name} in the job`}
                      checked={on}
                      disabled={
                        !editable ||
                        build.isPending ||
                        (job.stage === 'UNDER_WAY' && l.included && l.onCard)
                      }
                      onChange={(e) => toggle(l, e.target.checked)}
                    />
                    <span className="rule-word">{ruleWord(l)}</span>
                  </td>
                  <td>
                    <button
                      className="line-name"
                      aria-expanded={open === l.code}
                      onClick={() => setOpen(open === l.code ? undefined : l.code)}
                    >
                      {l.name}
                    </button>
                    {l.ownerSupplied && <span className="tag">owner’s part</span>}
                    {l.part &&
                      l.offers.find((o) => o.number === l.part && o.grade !== 'ORIGINAL') && (
                        <span className="tag">
                          {l.offers.find((o) => o.number === l.part)?.gradeWords}
                        </span>
                      )}
                    {l.included && !l.onCard && (
                      <span className="tag late">not on the card yet</span>
                    )}
                    <span className="second">
                      {l.reason}
                      {l.decision?.reason && ` Decided: ${l.decision.reason}.`}
                    </span>
                  </td>
                  {COLUMNS.map((c) => (
                    <td key={c.school} className="school">
                      {!closed && differs(l) ? (l.schools.includes(c.school) ? 'in' : '–') : ''}
                    </td>
                  ))}
                  <td className="num">{time(l)}</td>
                  <td className="num">
                    {l.included ? '' : '+'}
                    {formatMoney(l.nowMinor, currency)}
                  </td>
                  <td className="num">
                    {closed ? null : l.laterMinor === undefined ? (
                      <span className="hint">not known</span>
                    ) : (
                      formatMoney(l.laterMinor, currency)
                    )}
                  </td>
                  <td className={(l.savingMinor ?? 0) > 0 ? 'num saves' : 'num'}>
                    {!closed && l.savingMinor !== undefined && formatMoney(l.savingMinor, currency)}
                  </td>
                </tr>
                {open === l.code && (
                  <tr className="line-more">
                    <td />
                    <td colSpan={8}>
                      <LineForm
                        job={job}
                        line={l}
                        editable={editable}
                        onClose={() => setOpen(undefined)}
                      />
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
        {follows.length > 0 && (
          <tbody>
            <tr>
              <th colSpan={9} className="sub">
                Follows from what is opened
              </th>
            </tr>
            {follows.map((l) => (
              <tr key={l.code}>
                <td className="tick">
                  <span className="rule-word">must</span>
                </td>
                <td colSpan={5}>
                  {l.name} <span className="second">{l.reason}</span>
                </td>
                <td className="num">{formatMoney(l.partsMinor, currency)}</td>
                <td colSpan={2} />
              </tr>
            ))}
          </tbody>
        )}
        {!closed && (
          <tfoot>
            <tr>
              <th colSpan={2}>Each school, now and expected later</th>
              <td colSpan={7} className="schools-sum">
                {job.build.schools.map((s) => (
                  <span key={s.school} className={s.school === job.build.school ? 'on' : ''}>
                    <b>{s.words}</b> {formatHours(s.minutes)} h, {formatMoney(s.nowMinor, currency)}{' '}
                    + {formatMoney(s.laterMinor, currency)} later
                  </span>
                ))}
              </td>
            </tr>
          </tfoot>
        )}
      </table>
    </>
  );
}

/** Schools are only marked where they do not agree. */
const differs = (l: Line) => l.schools.length > 0 && l.schools.length < COLUMNS.length;

function ruleWord(l: Line): string {
  if (l.rule === 'REQUIRED') return 'must';
  return l.rule === 'EXCLUDED' ? 'out' : '';
}

/** What a line takes beyond what the others take anyway. */
function time(l: Line): string {
  if (l.minutes === 0) return 'shared';
  return `${l.included ? '' : '+'}${formatHours(l.minutes)} h`;
}

import type { Schemas } from '../../api/client';
import { DAYS } from '../../shared/days';
import { faulty } from '../../shared/forms';
import { FieldNote } from '../../shared/ProblemNote';
import { TimeField } from '../../shared/ui/TimeField';

export type Days = Schemas['DayHours'][];

/** Hours by day of the week; what lies between two spans of a day is a break. */
export function HoursEditor({
  days,
  onChange,
  error,
  at,
}: {
  days: Days;
  onChange: (days: Days) => void;
  error: unknown;
  /** pointer of the list in the request */
  at: string;
}) {
  const set = (d: number, spans: Days[number]['spans']) =>
    onChange(days.map((day, i) => (i === d ? { ...day, spans } : day)));
  const first = days.find((d) => d.spans.length > 0);
  return (
    <table className="plain hours">
      <tbody>
        {days.map((day, d) => {
          const name = DAYS.find((x) => x.value === day.day)!.label;
          return (
            <tr key={day.day}>
              <th scope="row">{name}</th>
              <td>
                {day.spans.length === 0 && <span className="muted">free</span>}
                {day.spans.map((s, i) => {
                  const put = (part: Partial<typeof s>) =>
                    set(
                      d,
                      day.spans.map((o, k) => (k === i ? { ...o, ...part } : o)),
                    );
                  return (
                    <span className="span" key={i}>
                      {i > 0 && <i>and</i>}
                      <TimeField
                        label={`${name}, from${i > 0 ? `, after break ${i}` : ''}`}
                        value={s.from}
                        status={faulty(error, `${at}/${d}/spans/${i}`)}
                        onChange={(from) => put({ from })}
                      />
                      to
                      <TimeField
                        label={`${name}, to${i > 0 ? `, after break ${i}` : ''}`}
                        value={s.to}
                        status={faulty(error, `${at}/${d}/spans/${i}`)}
                        onChange={(to) => put({ to })}
                      />
                      <FieldNote error={error} at={`${at}/${d}/spans/${i}`} />
                    </span>
                  );
                })}
              </td>
              <td className="num">
                <button
                  type="button"
                  className="link"
                  onClick={() =>
                    set(d, [
                      ...day.spans,
                      day.spans.length === 0
                        ? { from: '08:00', to: '12:00' }
                        : { from: undefined, to: undefined },
                    ])
                  }
                >
                  {day.spans.length === 0 ? 'Works' : 'Add a break'}
                </button>
                {day.spans.length > 0 && (
                  <button type="button" className="link" onClick={() => set(d, [])}>
                    Free
                  </button>
                )}
                {first && first !== day && (
                  <button type="button" className="link" onClick={() => set(d, first.spans)}>
                    As {DAYS.find((x) => x.value === first.day)!.label}
                  </button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

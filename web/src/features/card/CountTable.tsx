import { Fragment } from 'react';

/** Figures counted on each stretch of a loop, a column for each count. */
export function CountTable({
  head,
  rows,
  columns,
  counts,
  onCount,
  children,
}: {
  head: string;
  rows: string[];
  columns: string[];
  counts: string[][];
  onCount: (counts: string[][]) => void;
  children?: React.ReactNode;
}) {
  return (
    <table className="runs">
      <thead>
        <tr>
          <th className="spans-all" colSpan={columns.length}>
            {head}
          </th>
        </tr>
        <tr>
          {columns.map((c) => (
            <th key={c}>{c}</th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <Fragment key={row}>
            <tr>
              <th scope="rowgroup" className="spans-all" colSpan={columns.length}>
                {row}
              </th>
            </tr>
            <tr>
              {columns.map((column, c) => (
                <td key={column}>
                  <input
                    aria-label={`${row}, ${column}`}
                    inputMode="numeric"
                    value={counts[c]?.[r] ?? ''}
                    onChange={(e) =>
                      onCount(
                        counts.map((list, k) =>
                          k === c ? list.map((v, n) => (n === r ? e.target.value : v)) : list,
                        ),
                      )
                    }
                  />
                </td>
              ))}
            </tr>
          </Fragment>
        ))}
        {children}
      </tbody>
    </table>
  );
}

/** A number of teeth or links as it was typed; undefined where it is none. */
export const whole = (text: string) => (/^\d{1,3}$/.test(text.trim()) ? Number(text) : undefined);

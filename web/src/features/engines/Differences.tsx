import type { Schemas } from '../../api/client';

/** What differs between two versions of a book, place by place. */
export function Differences({ list }: { list: Schemas['DifferenceView'][] }) {
  if (list.length === 0) return null;
  return (
    <table className="plain differences">
      <thead>
        <tr>
          <th>Where</th>
          <th>Before</th>
          <th>After</th>
        </tr>
      </thead>
      <tbody>
        {list.map((d) => (
          <tr key={d.pointer}>
            <td>
              <code>{d.pointer.slice(1).replaceAll('/', ' › ')}</code>
            </td>
            <td>{d.before || <span className="hint">not there</span>}</td>
            <td>{d.after || <span className="hint">not there</span>}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

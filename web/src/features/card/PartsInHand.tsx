import { useState } from 'react';
import { readNumber } from '../../shared/ui/spelling';
import type { Bench, Card } from './cardQueries';

type Part = Card['parts'][number];
type Figures = Part['book'];

/** The parts of the job, line by line: what was ordered, what it must measure, and what was seen in hand. */
export function PartsInHand({ card, bench }: { card: Card; bench: Bench }) {
  const [open, setOpen] = useState<string>();
  return (
    <div className="in-hand">
      <table>
        <thead>
          <tr>
            <th>Part</th>
            <th>Ordered</th>
            <th>By catalogue and book</th>
            <th>In hand</th>
          </tr>
        </thead>
        <tbody>
          {card.parts.map((p, i) => (
            <tr key={`${p.item ?? p.name} ${p.number} ${i}`}>
              <td>
                {p.quantity > 1 && `${p.quantity} × `}
                <b>{p.item ? p.name : p.partName}</b>
                {!p.item && <span className="second">{p.name}</span>}
                {p.notes.map((n) => (
                  <span key={n} className="second wrong">
                    {n}
                  </span>
                ))}
              </td>
              <td>{p.ownerSupplied ? 'the owner’s own' : p.number}</td>
              <td>{figures(p.book, p.counted) || <span className="muted">not on file</span>}</td>
              <td>
                {p.item && (
                  <button
                    className="bench-action"
                    aria-expanded={open === p.item}
                    onClick={() => setOpen(open === p.item ? undefined : p.item)}
                  >
                    {p.seen ? figures(p.seen, p.counted) : 'measure'}
                  </button>
                )}
                {p.wrong.map((w) => (
                  <span key={w} className="second wrong">
                    {w}
                  </span>
                ))}
                {p.seen && p.wrong.length === 0 && <span className="second">fits</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {open !== undefined && (
        <Measured
          key={open}
          part={card.parts.find((p) => p.item === open)!}
          bench={bench}
          onDone={() => setOpen(undefined)}
        />
      )}
      {card.kits.map((k) => (
        <p key={k.number} className="muted">
          Kit {k.number}, {k.name}, holds {k.holds.join(', ').toLowerCase()}.
          {k.lacks.length > 0 && ` Not in it: ${k.lacks.join(', ').toLowerCase()}.`}
          {k.leavesOut && ` It leaves out ${k.leavesOut}.`}
        </p>
      ))}
    </div>
  );
}

function figures(f: Figures, counted: string): string {
  return [
    f.teeth !== undefined && `${f.teeth} ${counted}`,
    f.widthMm !== undefined && `${f.widthMm} mm wide`,
    f.lengthMm !== undefined && `${f.lengthMm} mm long`,
    f.thicknessMm !== undefined && `${f.thicknessMm} mm thick`,
    f.side,
  ]
    .filter(Boolean)
    .join(', ');
}

const FIELDS = [
  ['widthMm', 'Width, mm'],
  ['lengthMm', 'Length, mm'],
  ['thicknessMm', 'Thickness, mm'],
] as const;

/** What was counted, measured or seen of one part. */
function Measured({ part, bench, onDone }: { part: Part; bench: Bench; onDone: () => void }) {
  const [typed, setTyped] = useState<Record<string, string>>({});
  const value = (name: string, decimals: number) => {
    const read = typed[name]?.trim() ? readNumber(typed[name], decimals) : undefined;
    return read?.kind === 'is' ? read.value : undefined;
  };
  const unread = Object.entries(typed).some(
    ([name, t]) =>
      name !== 'side' && t.trim() && value(name, name === 'teeth' ? 0 : 2) === undefined,
  );
  const any = Object.values(typed).some((t) => t.trim());
  const field = (name: string, label: string) => (
    <div key={name}>
      <label htmlFor={`part-${name}`}>{label}</label>
      <input
        id={`part-${name}`}
        inputMode={name === 'side' ? 'text' : 'decimal'}
        maxLength={40}
        value={typed[name] ?? ''}
        onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
      />
    </div>
  );
  return (
    <form
      className="in-hand-form"
      aria-label={`${part.name} in hand`}
      onSubmit={(e) => {
        e.preventDefault();
        void bench
          .enter({
            type: 'PART',
            item: part.item,
            teeth: value('teeth', 0),
            widthMm: value('widthMm', 2),
            lengthMm: value('lengthMm', 2),
            thicknessMm: value('thicknessMm', 2),
            side: typed.side?.trim() || undefined,
          })
          .then((taken) => taken && onDone());
      }}
    >
      <b>{part.name}</b>
      <div className="in-hand-fields">
        {field('teeth', part.counted === 'links' ? 'Links' : 'Teeth')}
        {FIELDS.map(([name, label]) => field(name, label))}
        {field('side', 'Side')}
      </div>
      {unread && <p className="bench-warning">One of the figures cannot be read.</p>}
      <button className="bench-button action" disabled={bench.busy || unread || !any}>
        Enter what was seen
      </button>
    </form>
  );
}

/** The tool set, piece by piece; what is broken or missing is told where it is found. */
export function ToolPieces({ card, bench }: { card: Card; bench: Bench }) {
  const [open, setOpen] = useState<string>();
  const [words, setWords] = useState('');
  const tell = (piece: string, missing: boolean) =>
    void bench.enter({ type: 'TOOL_FAILED', piece, missing, words }).then((taken) => {
      if (!taken) return;
      setOpen(undefined);
      setWords('');
    });
  if (card.tools.length === 0) return <p className="muted">This card needs no tool of its own.</p>;
  return (
    <ul className="tool-pieces">
      {card.tools.map((t) => (
        <li key={t.name}>
          <span>
            {t.count > 1 && `${t.count} × `}
            <b>{t.name}</b> {t.use && <span className="muted">{t.use}</span>}
            {t.failed && (
              <span className="second wrong">{t.failed}; Stores and the Board know</span>
            )}
          </span>
          <button
            className="bench-action"
            aria-expanded={open === t.name}
            onClick={() => setOpen(open === t.name ? undefined : t.name)}
          >
            broken or missing
          </button>
          {open === t.name && (
            <div className="tool-failed">
              <label htmlFor="tool-words">What is wrong, in a few words</label>
              <input
                id="tool-words"
                maxLength={120}
                value={words}
                onChange={(e) => setWords(e.target.value)}
              />
              <div className="pair">
                <button
                  className="bench-button"
                  disabled={bench.busy}
                  onClick={() => tell(t.name, false)}
                >
                  It is broken
                </button>
                <button
                  className="bench-button"
                  disabled={bench.busy}
                  onClick={() => tell(t.name, true)}
                >
                  It is missing
                </button>
              </div>
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}

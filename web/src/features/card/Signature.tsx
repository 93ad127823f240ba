import { useState } from 'react';
import { Link } from 'react-router';
import { formatDate, formatHours, formatKm, formatMoment } from '../../shared/format';
import { useMe } from '../../shared/me';
import { pictureAt, useRecord, type Bench, type Card, type EntryOf } from './cardQueries';
import { Words } from './BenchMenu';
import { Choices } from './Choices';
import { numberOf } from '../../shared/ui/spelling';

type OldParts = NonNullable<EntryOf<'COMPLETE'>['oldParts']>;

const OLD_PARTS: { code: OldParts; words: string }[] = [
  { code: 'SHOWN_AND_SCRAPPED', words: 'shown, then scrapped' },
  { code: 'RETURNED', words: 'returned to the owner' },
  { code: 'KEPT', words: 'kept here' },
];

/** The last screen before the signature. */
export function Sign({ card, bench }: { card: Card; bench: Bench }) {
  const [note, setNote] = useState('');
  const [oldParts, setOldParts] = useState<OldParts>('SHOWN_AND_SCRAPPED');
  const [hours, setHours] = useState('');
  const kept = bench.kept.length;
  // what waits may well open them
  const shut = kept > 0 ? [] : card.gates.filter((g) => !g.open);
  const overridden = card.gates.filter((g) => g.overriddenWith);
  const typed = hours === '' ? 0 : numberOf(hours, 2);
  return (
    <section className="bench-step sign">
      <h1>
        {shut.length ? 'A gate is shut' : kept ? 'Entries wait to be sent' : 'Every step is done'}
      </h1>
      {shut.map((g) => (
        <p key={g.kind} className="bench-warning">
          {g.words}: {g.waitsFor}
        </p>
      ))}
      {kept > 0 && (
        <p className="bench-warning">
          {kept} {kept === 1 ? 'entry is' : 'entries are'} still on this tablet; sign when the
          network is back.
        </p>
      )}
      <p>
        {card.inspection ? 'Nothing renewed' : `Renewed: ${card.items.join(', ')}`}. Odometer at
        check-in {formatKm(card.odometerKm ?? 0)}.
      </p>
      <NextDue card={card} />
      {overridden.map((g) => (
        <p key={g.kind} className="bench-caution">
          {g.words} was opened by {g.overriddenBy}: {g.overriddenWith}
        </p>
      ))}
      <p>
        By the card’s clock <b>{formatHours(card.worked.minutes)} h</b> of{' '}
        {formatHours(card.bookMinutes + card.contingencyMinutes)} h.
      </p>
      <div className="sign-grid">
        <div>
          <label htmlFor="hours">Hours worked, where the clock is not right</label>
          <input
            id="hours"
            inputMode="decimal"
            value={hours}
            placeholder={formatHours(card.worked.minutes)}
            onChange={(e) => setHours(e.target.value)}
          />
        </div>
        {!card.inspection && (
          <div role="group" aria-label="Old parts">
            <span className="label">Old parts</span>
            <Choices
              columns="three"
              options={OLD_PARTS.map((o) => [o.code, o.words] as const)}
              chosen={oldParts}
              onChoose={setOldParts}
            />
          </div>
        )}
      </div>
      <Words id="closing" label="Words for the record" value={note} onChange={setNote} />
      {bench.refused && (
        <p className="bench-warning" role="alert">
          {bench.refused.problem.message}
        </p>
      )}
      <button
        className="bench-button action wide"
        disabled={bench.busy || shut.length > 0 || kept > 0 || Number.isNaN(typed) || typed < 0}
        onClick={() =>
          void bench.enter({
            type: 'COMPLETE',
            words: note,
            oldParts,
            minutes: hours === '' ? undefined : Math.round(typed * 60),
          })
        }
      >
        Sign the job
      </button>
    </section>
  );
}

/** A signed card: what was done, when it is due next, and the proof. */
export function Signed({ card }: { card: Card }) {
  const me = useMe();
  const { data: record, error } = useRecord(card.jobId, true);
  return (
    <section className="bench-step sign">
      <h1>Signed</h1>
      <p>
        {card.inspection ? 'Inspected' : `${card.items.join(', ')}: renewed`} on{' '}
        <b>{formatDate(card.completedOn ?? '')}</b> at <b>{formatKm(card.odometerKm ?? 0)}</b>.{' '}
        {card.inspection
          ? 'What was found, and what follows, stands on the vehicle.'
          : 'Their clocks start again from there.'}
      </p>
      <NextDue card={card} />
      <div className="actions">
        {!card.inspection && (
          <a
            className="bench-button action"
            href={`/api/jobs/${card.jobId}/card/label.pdf`}
            target="_blank"
            rel="noreferrer"
          >
            Print the label
          </a>
        )}
        <a
          className="bench-button"
          href={`/api/jobs/${card.jobId}/record.pdf`}
          target="_blank"
          rel="noreferrer"
        >
          Print the record
        </a>
        {me.desk && (
          <Link className="bench-button" to={`/vehicles/${card.vehicleId}`}>
            The vehicle
          </Link>
        )}
      </div>
      <Pictures card={card} />
      {error && (
        <p className="bench-warning" role="alert">
          {error.message}
        </p>
      )}
      {record?.sections.map((s) => (
        <table key={s.title} className="record">
          <caption>{s.title}</caption>
          <tbody>
            {s.lines.map((l, i) => (
              <tr key={i}>
                <td>{l.what}</td>
                <td className={l.marked ? 'bench-caution' : undefined}>{l.words}</td>
                <td className="muted">{l.by}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
    </section>
  );
}

/** As the label has it; before the signature, as it would be were the job signed today. */
function NextDue({ card }: { card: Card }) {
  const limits = [
    card.nextDueOn && formatDate(card.nextDueOn),
    card.nextDueKm && formatKm(card.nextDueKm),
  ].filter(Boolean);
  return (
    <p className="next-due">
      Next due <b>{limits.join(' or ') || 'not by the book: it has no interval'}</b>
      {limits.length > 1 ? ', whichever comes first.' : '.'}
    </p>
  );
}

/** The pictures of a job, each at its step. */
export function Pictures({ card, step }: { card: Card; step?: string }) {
  const shown = card.photos.filter((p) => step === undefined || p.step === step);
  if (shown.length === 0) return null;
  return (
    <div className="pictures">
      {shown.map((p) => {
        const src = pictureAt(card.jobId, p.id);
        const words = p.caption || 'Picture without words';
        return (
          <a key={p.id} href={src} target="_blank" rel="noreferrer">
            <img src={src} alt={words} width={p.width} height={p.height} loading="lazy" />
            <span>
              {p.caption} <span className="muted">{formatMoment(p.at)}</span>
            </span>
          </a>
        );
      })}
    </div>
  );
}

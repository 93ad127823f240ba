import { useQuery } from '@tanstack/react-query';
import { Button, message } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatKm, formatMoment, formatNumber, formatWhole } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { MovesTable } from '../desk/DeskViews';
import { assumptionsQuery, useAssume, usePreviewAssumptions } from './setupQueries';
import { NumberField } from '../../shared/ui/NumberField';
import { faulty } from '../../shared/forms';

type View = Schemas['AssumptionsView'];
type Assumption = Schemas['AssumptionView'];

/** Every figure the judgement rests on: as usual, as the workshop has it, who changed it and when. */
export default function Assumptions() {
  const { data: view, error, refetch } = useQuery(assumptionsQuery);
  const [notes, holder] = message.useMessage();
  if (error && !view) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!view) return <p className="hint loading">Reading the assumptions…</p>;
  return (
    <>
      {holder}
      <Form
        key={view.version}
        view={view}
        onKept={() => notes.success('Kept. Every vehicle has been judged anew.')}
      />
    </>
  );
}

function Form({ view, onKept }: { view: View; onKept: () => void }) {
  const [edited, setEdited] = useState<Record<string, number | null>>({});
  const change = useAssume(onKept);
  const preview = usePreviewAssumptions();
  const amounts = Object.fromEntries(
    Object.entries(edited).filter((e): e is [string, number] => e[1] !== null),
  );
  const body = { amounts, version: view.version };
  const error = change.error ?? preview.error;
  const groups = [...new Set(view.assumptions.map((a) => a.group))];
  const touched = Object.keys(amounts).length > 0;
  return (
    <form
      className="assumptions"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(body);
      }}
    >
      <p className="hint">
        All figures are planning assumptions. “Usual” is what the tool starts with; a change is kept
        with who made it, and every vehicle is judged anew.
      </p>
      <div className="assumption-columns">
        {groups.map((group) => (
          <section key={group}>
            <h2>{group}</h2>
            {view.assumptions
              .filter((a) => a.group === group)
              .map((a) => (
                <Line
                  key={a.name}
                  a={a}
                  value={a.name in edited ? edited[a.name]! : a.value}
                  error={error}
                  onChange={(v) => {
                    preview.reset();
                    change.reset();
                    setEdited({ ...edited, [a.name]: v });
                  }}
                />
              ))}
          </section>
        ))}
        <Classes classes={view.classes} />
      </div>
      {!(error && 'errors' in error && (error as { errors: unknown[] }).errors.length > 0) && (
        <ProblemNote error={error} />
      )}
      {preview.data && <Preview preview={preview.data} />}
      <div className="actions sticky">
        <Button
          onClick={() => preview.mutate(body)}
          loading={preview.isPending}
          disabled={!touched}
        >
          What would it move?
        </Button>
        <Button type="primary" htmlType="submit" loading={change.isPending} disabled={!touched}>
          Keep these figures
        </Button>
        {touched && (
          <button type="button" className="action" onClick={() => setEdited({})}>
            Put back
          </button>
        )}
      </div>
      <History changes={view.changes} />
    </form>
  );
}

/** Whole hundredths of a per cent, so that what is typed is what is kept. */
const SHARE = 10_000;

/** As it is written: a share in per cent. */
const inUnits = (a: Assumption, value: number) =>
  a.share ? Math.round(value * SHARE) / 100 : value;

const fromUnits = (a: Assumption, shown: number) =>
  a.share ? Math.round(shown * 100) / SHARE : shown;

function Line({
  a,
  value,
  error,
  onChange,
}: {
  a: Assumption;
  value: number | null;
  error: unknown;
  onChange: (value: number | null) => void;
}) {
  return (
    <div className="setting assumption">
      <label htmlFor={a.name}>{a.words}</label>
      <NumberField
        id={a.name}
        value={value === null ? undefined : inUnits(a, value)}
        decimals={a.whole ? 0 : a.share ? 2 : 4}
        status={faulty(error, `/amounts/${a.name}`)}
        onChange={(v) => onChange(v === undefined || v === null ? null : fromUnits(a, v))}
      />
      <span className="hint">{a.unit}</span>
      <FieldNote error={error} at={`/amounts/${a.name}`} />
      {(a.changedBy ?? value !== a.usual) && (
        <span className="hint wide-hint">
          usual {formatNumber(inUnits(a, a.usual), 4)}
          {a.changedBy && a.changedAt && `; ${a.changedBy}, ${formatMoment(a.changedAt)}`}{' '}
          {value !== a.usual && (
            <button type="button" className="link" onClick={() => onChange(a.usual)}>
              as usual
            </button>
          )}
        </span>
      )}
    </div>
  );
}

/** What each usage class has learned from the workshop's own vehicles. */
function Classes({ classes }: { classes: View['classes'] }) {
  return (
    <section>
      <h2>Learned from the workshop’s own vehicles</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>Usage class</th>
            <th className="num">Vehicles</th>
            <th className="num">Mean a year</th>
            <th className="num">Spread</th>
          </tr>
        </thead>
        <tbody>
          {classes.map((c) => (
            <tr key={c.name}>
              <td>
                {c.name}
                {!c.learned && <span className="second">as assumed; {c.needed} needed</span>}
              </td>
              <td className="num">{formatWhole(c.vehicles)}</td>
              <td className="num">{formatKm(c.mean)}</td>
              <td className="num">{formatKm(c.spread)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** What a change would move, before it is kept. */
export function Preview({ preview }: { preview: Schemas['PreviewView'] }) {
  return (
    <section className="preview" role="status">
      <h2>
        {preview.vehicles === 0
          ? 'No vehicle would move'
          : `${formatWhole(preview.vehicles)} ${preview.vehicles === 1 ? 'vehicle' : 'vehicles'} would move, ${formatWhole(preview.newStatus)} to another status`}
      </h2>
      {preview.moves.length > 0 && <MovesTable moves={preview.moves} />}
      {preview.vehicles > preview.moves.length && (
        <p className="hint">
          The {preview.moves.length} worst are shown; the others are on the Desk once it is kept.
        </p>
      )}
    </section>
  );
}

function History({ changes }: { changes: View['changes'] }) {
  if (changes.length === 0) return <p className="hint">Nothing has been changed yet.</p>;
  return (
    <section>
      <h2>Changes</h2>
      <ul className="plain log">
        {changes.map((c, i) => (
          <li key={i}>
            {c.what}: {c.before}, now {c.after}
            <span className="second">
              {c.by}, {formatMoment(c.at)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

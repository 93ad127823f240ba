import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { CardForm, Field, faulty } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { NumberField } from '../../shared/ui/NumberField';
import { choicesQuery } from '../desk/deskQueries';
import {
  matchingQuery,
  useAddRule,
  useChangeRule,
  useGiveFamilies,
  useRemoveRule,
} from './setupQueries';

type Rule = Schemas['RuleView'];
type Open = Schemas['OpenView'];
type Choice = Schemas['ChoiceIn'];

const SHOWN = 50;

const years = (r: Rule) =>
  r.yearFrom === undefined && r.yearTo === undefined
    ? 'any year'
    : r.yearTo === undefined
      ? `from ${r.yearFrom}`
      : r.yearFrom === undefined
        ? `to ${r.yearTo}`
        : r.yearFrom === r.yearTo
          ? `${r.yearFrom}`
          : `${r.yearFrom} to ${r.yearTo}`;

/** Which engine family a vehicle has, by what the workshop writes of it; and the vehicles that leaves open. */
export default function Matching() {
  const { data: view, error, refetch } = useQuery(matchingQuery);
  const remove = useRemoveRule();
  const [before, setBefore] = useState<Choice[]>();
  const give = useGiveFamilies((given) => setBefore(given.before));
  const [open, setOpen] = useState<Rule | 'new'>();
  if (error && !view) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!view) return <p className="hint loading">Reading the rules…</p>;
  const waiting = view.one.length + view.none.length + view.several.length;
  const choose = (v: Open, family: string | undefined) =>
    give.mutate([{ vehicleId: v.vehicleId, family, version: v.version }]);
  return (
    <section className="matching">
      <h2>Rules</h2>
      <p className="hint">
        A vehicle that answers all a rule asks has that engine. New vehicles and lists are asked as
        they come in; case, spaces and signs do not count.
      </p>
      <ProblemNote error={remove.error} />
      {view.rules.length === 0 && <p className="muted">No rule yet.</p>}
      {view.rules.length > 0 && (
        <table className="plain people">
          <thead>
            <tr>
              <th>Make and model with</th>
              <th>Engine letters</th>
              <th>First registered</th>
              <th>Engine family</th>
              <th className="num">Vehicles</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {view.rules.map((r) => (
              <tr key={r.id}>
                <td>{r.makeModel || <span className="muted">any</span>}</td>
                <td className="mono">{r.engine || <span className="muted">any</span>}</td>
                <td>{years(r)}</td>
                <td>
                  <Link to={`/engines/${r.family}`}>{r.familyName}</Link>
                </td>
                <td className="num">
                  {r.fits}
                  {r.otherwise > 0 && (
                    <span className="second">{r.otherwise} with another engine</span>
                  )}
                </td>
                <td className="num">
                  <button className="link" onClick={() => setOpen(r)}>
                    Change
                  </button>
                  <Popconfirm
                    title="Take this rule away?"
                    description="Vehicles keep the engine it gave them."
                    okText="Take it away"
                    cancelText="Leave it"
                    onConfirm={() => remove.mutate(r)}
                  >
                    <button className="link">Take away</button>
                  </Popconfirm>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {open ? (
        <RuleForm
          key={open === 'new' ? 'new' : open.id}
          rule={open === 'new' ? undefined : open}
          onDone={() => setOpen(undefined)}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>Add a rule</Button>
      )}

      <h2>Vehicles without an engine family</h2>
      <ProblemNote error={give.error} />
      {before && (
        <p role="status" className="done">
          {before.length === 1 ? 'One vehicle has' : `${before.length} vehicles have`} been changed.{' '}
          <button
            className="link"
            onClick={() => give.mutate(before, { onSuccess: () => setBefore(undefined) })}
          >
            Take that back
          </button>
        </p>
      )}
      {waiting === 0 && <p className="muted">Every vehicle in use has its engine family.</p>}
      {view.one.length > 0 && (
        <>
          <h3>The rules give one family: {view.one.length}</h3>
          <Vehicles
            vehicles={view.one}
            cell={(v) => v.families[0]?.name}
            touch={(v) => (
              <button className="link" onClick={() => choose(v, v.families[0]?.code)}>
                Give it
              </button>
            )}
          />
          <Button
            type="primary"
            loading={give.isPending}
            onClick={() =>
              give.mutate(
                view.one.map((v) => ({
                  vehicleId: v.vehicleId,
                  family: v.families[0]?.code,
                  version: v.version,
                })),
              )
            }
          >
            {view.one.length === 1
              ? 'Give it its engine'
              : `Give all ${view.one.length} their engine`}
          </Button>
        </>
      )}
      {view.several.length > 0 && (
        <>
          <h3>Several families fit: {view.several.length}</h3>
          <Vehicles
            vehicles={view.several}
            cell={() => 'choose'}
            touch={(v) =>
              v.families.map((f) => (
                <button key={f.code} className="link" onClick={() => choose(v, f.code)}>
                  {f.name}
                </button>
              ))
            }
          />
        </>
      )}
      {view.none.length > 0 && (
        <>
          <h3>No rule fits: {view.none.length}</h3>
          <Vehicles
            vehicles={view.none}
            cell={() => <span className="muted">none</span>}
            touch={(v) => (
              <Link className="link" to={`/vehicles/${v.vehicleId}/details`}>
                Open the vehicle
              </Link>
            )}
          />
        </>
      )}
    </section>
  );
}

function Vehicles({
  vehicles,
  cell,
  touch,
}: {
  vehicles: Open[];
  cell: (v: Open) => React.ReactNode;
  touch: (v: Open) => React.ReactNode;
}) {
  return (
    <>
      <table className="plain people">
        <thead>
          <tr>
            <th>Registration</th>
            <th>Make and model</th>
            <th>Engine letters</th>
            <th className="num">First registered</th>
            <th>Engine family</th>
            <th>
              <span className="unseen">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {vehicles.slice(0, SHOWN).map((v) => (
            <tr key={v.vehicleId}>
              <td>
                <Link to={`/vehicles/${v.vehicleId}`}>{v.registration}</Link>
              </td>
              <td>{v.makeModel}</td>
              <td className="mono">{v.engine}</td>
              <td className="num">{v.year}</td>
              <td>{cell(v)}</td>
              <td className="num">{touch(v)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {vehicles.length > SHOWN && <p className="hint">and {vehicles.length - SHOWN} more.</p>}
    </>
  );
}

function RuleForm({ rule, onDone }: { rule?: Rule; onDone: () => void }) {
  const { data: choices } = useQuery(choicesQuery);
  const [r, setR] = useState<Schemas['RuleIn']>(rule ?? { version: 0 });
  const add = useAddRule(onDone);
  const change = useChangeRule(onDone);
  const sent = rule ? change : add;
  return (
    <CardForm
      title={rule ? 'Change the rule' : 'Add a rule'}
      submit={rule ? 'Save' : 'Add'}
      error={sent.error}
      at={['/family', '/makeModel', '/engine', '/yearFrom', '/yearTo']}
      pending={sent.isPending}
      onSubmit={() => (rule ? change.mutate({ ...r, id: rule.id }) : add.mutate(r))}
      onClose={onDone}
    >
      <div className="fields">
        <Field
          id="rule-words"
          label="Make and model with these words"
          error={sent.error}
          at="/makeModel"
          grow
        >
          <Input
            id="rule-words"
            autoFocus
            maxLength={80}
            value={r.makeModel ?? ''}
            status={faulty(sent.error, '/makeModel')}
            onChange={(e) => setR({ ...r, makeModel: e.target.value })}
          />
        </Field>
        <Field
          id="rule-engine"
          label="Engine letters, commas between"
          error={sent.error}
          at="/engine"
        >
          <Input
            id="rule-engine"
            className="mono"
            maxLength={120}
            value={r.engine ?? ''}
            status={faulty(sent.error, '/engine')}
            onChange={(e) => setR({ ...r, engine: e.target.value })}
          />
        </Field>
        <Field id="rule-from" label="First registered from" error={sent.error} at="/yearFrom">
          <NumberField
            id="rule-from"
            value={r.yearFrom}
            status={faulty(sent.error, '/yearFrom')}
            onChange={(yearFrom) => setR({ ...r, yearFrom })}
          />
        </Field>
        <Field id="rule-to" label="to" error={sent.error} at="/yearTo">
          <NumberField
            id="rule-to"
            value={r.yearTo}
            status={faulty(sent.error, '/yearTo')}
            onChange={(yearTo) => setR({ ...r, yearTo })}
          />
        </Field>
        <Field id="rule-family" label="has the engine" error={sent.error} at="/family">
          <Select
            id="rule-family"
            value={r.family}
            showSearch={{ optionFilterProp: 'label' }}
            popupMatchSelectWidth={false}
            status={faulty(sent.error, '/family')}
            onChange={(family) => setR({ ...r, family })}
            options={(choices?.families ?? []).map((f) => ({ value: f.code, label: f.words }))}
          />
        </Field>
      </div>
    </CardForm>
  );
}

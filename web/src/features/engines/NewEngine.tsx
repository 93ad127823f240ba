import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Popconfirm, Select } from 'antd';
import { useEffect, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { faulty, Field } from '../../shared/forms';
import { distanceUnit } from '../../shared/format';
import { amountOf } from '../../shared/money';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { useUsual } from '../../shared/usual';
import { NumberField } from '../../shared/ui/NumberField';
import { beginningsQuery, beginQuery, formCheckQuery, useFileForm } from './engineQueries';
import { DistanceField } from '../../shared/ui/DistanceField';

type Form = Schemas['Form'];
type Kind = Schemas['KindChoice'];
type Extra = Schemas['ExtraChoice']['code'];

/** A new family: what it is like first, then one page. */
export default function NewEngine() {
  const [search] = useSearchParams();
  const like = search.get('like') ?? undefined;
  const copy = search.get('copy') ?? undefined;
  const { data: choices, error, refetch } = useQuery(beginningsQuery);
  return (
    <div className="page new-engine">
      <header className="builder-head">
        <h1>New engine family</h1>
        <p>
          <Link to="/engines">all families</Link>
        </p>
      </header>
      <ProblemNote error={error} retry={() => refetch()} />
      {choices &&
        (like || copy ? (
          <Page
            key={like ?? copy}
            like={like}
            copy={copy}
            kind={choices.kinds.find((k) => k.code === like)}
            from={
              choices.kinds.find((k) => k.code === like)?.name ??
              choices.families.find((f) => f.code === copy)?.name ??
              ''
            }
          />
        ) : (
          <Beginning choices={choices} />
        ))}
    </div>
  );
}

/** What the engine is like: one of the kinds, or a family on file. */
function Beginning({ choices }: { choices: Schemas['Beginnings'] }) {
  const navigate = useNavigate();
  return (
    <>
      <p>
        Choose what the engine is like. Its order of work is taken over, with the bolts and minutes
        such work usually has, to be written over, and no other figure. What you do not answer stays
        “not on file” and says what it blocks.
      </p>
      <div className="begin-copy">
        <label htmlFor="begin-copy">Or begin from a family on file, with its figures</label>
        <Select
          id="begin-copy"
          disabled={choices.families.length === 0}
          placeholder={choices.families.length === 0 ? 'none on file yet' : 'Choose a family'}
          showSearch={{ optionFilterProp: 'label' }}
          options={choices.families.map((f) => ({ value: f.code, label: f.name }))}
          onChange={(code: string) => navigate(`?copy=${encodeURIComponent(code)}`)}
        />
      </div>
      <ul className="kinds">
        {choices.kinds.map((k) => (
          <li key={k.code}>
            <Link to={`?like=${k.code}`}>
              <b>{k.name}</b>
              <span className="hint">
                {k.drive}: {k.has.join(', ').toLowerCase()}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}

/** Lines of the page as begun anew, with what was typed on the lines it shares with the one before. */
function merged(fresh: Form, typed: Form | undefined): Form {
  if (!typed) return fresh;
  const lines = <T extends { code: string }>(now: T[], before: T[]) =>
    now.map((line) => before.find((b) => b.code === line.code) ?? line);
  return {
    ...typed,
    loops: lines(fresh.loops, typed.loops),
    items: lines(fresh.items, typed.items),
    steps: lines(fresh.steps, typed.steps),
    joints: lines(fresh.joints, typed.joints),
    fluids: lines(fresh.fluids, typed.fluids),
    looks: lines(fresh.looks, typed.looks),
    positions: lines(fresh.positions, typed.positions),
  };
}

function Page({
  like,
  copy,
  kind,
  from,
}: {
  like?: string;
  copy?: string;
  kind?: Kind;
  from: string;
}) {
  const [extras, setExtras] = useState<Extra[]>([]);
  const { data: fresh, error } = useQuery({
    ...beginQuery(like, copy, extras),
    placeholderData: keepPreviousData,
  });
  const [form, setForm] = useState<Form>();
  const [begun, setBegun] = useState<Form>();
  if (fresh && fresh !== begun) {
    setBegun(fresh);
    setForm(merged(fresh, form));
  }
  if (error) return <ProblemNote error={error} />;
  if (!form) return <p className="hint loading">Reading the kind…</p>;
  return (
    <Answers
      form={form}
      onForm={setForm}
      from={from}
      asked={{ like, copy, extras }}
      extras={
        kind && kind.extras.length > 0 ? (
          <fieldset>
            <legend>What it has besides</legend>
            <Checkbox.Group
              value={extras}
              onChange={(e) => setExtras(e)}
              options={kind.extras.map((e) => ({ value: e.code, label: e.words }))}
            />
          </fieldset>
        ) : undefined
      }
    />
  );
}

/** The last answers, once nobody has typed for a moment. */
function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

function Answers({
  form,
  onForm,
  from,
  asked,
  extras,
}: {
  form: Form;
  onForm: (form: Form) => void;
  from: string;
  asked: { like?: string; copy?: string; extras: Extra[] };
  extras?: React.ReactNode;
}) {
  const { currency } = useMe();
  const usual = useUsual();
  const navigate = useNavigate();
  const file = useFileForm((filed) => navigate(`/engines/${filed.code}`));
  const settled = useSettled(form, 400);
  const check = useQuery({
    ...formCheckQuery({ ...asked, form: settled }),
    placeholderData: keepPreviousData,
  });
  const e = file.error;
  const set = (part: Partial<Form>) => onForm({ ...form, ...part });
  const line = <
    K extends 'loops' | 'items' | 'steps' | 'joints' | 'fluids' | 'looks' | 'positions',
  >(
    list: K,
    i: number,
    part: Partial<Form[K][number]>,
  ) =>
    set({ [list]: form[list].map((l, at) => (at === i ? { ...l, ...part } : l)) } as Partial<Form>);
  const known = e instanceof Problem ? e.errors.map((p) => p.pointer) : [];
  const cell = (at: string) =>
    e instanceof Problem && e.at(at) ? (
      <span className="field-note" role="alert">
        {e.at(at)}
      </span>
    ) : null;
  const money = (
    id: string,
    at: string,
    value: number | undefined,
    put: (minor: number | undefined) => void,
    label?: string,
  ) => (
    <>
      <NumberField
        id={id}
        label={label}
        decimals={amountOf(0, currency).split('.')[1]?.length ?? 0}
        suffix={currency}
        status={faulty(e, at)}
        value={value === undefined ? undefined : Number(amountOf(value, currency))}
        onChange={(v) => put(v === undefined ? undefined : Math.round(v * 10 ** digits(currency)))}
      />
      {cell(at)}
    </>
  );
  return (
    <form
      className="engine-form"
      onSubmit={(event) => {
        event.preventDefault();
        file.mutate({ ...asked, form });
      }}
    >
      <div className="engine-answers">
        <p className="hint">
          Begun from: {from}.{' '}
          <Popconfirm
            title="Choose another beginning?"
            description="What you typed here is lost."
            okText="Choose another"
            cancelText="Go on here"
            onConfirm={() => navigate('/engines/new')}
          >
            <button type="button" className="link">
              Choose another
            </button>
          </Popconfirm>
        </p>
        <section className="form">
          <h2>The engine</h2>
          <div className="fields">
            <Field id="family-code" label="Short code" error={e} at="/form/code">
              <Input
                id="family-code"
                className="mono"
                autoFocus
                maxLength={20}
                value={form.code ?? ''}
                status={faulty(e, '/form/code')}
                onChange={(x) => set({ code: x.target.value })}
              />
            </Field>
            <Field id="family-name" label="Name, as you call it" error={e} at="/form/name" grow>
              <Input
                id="family-name"
                maxLength={80}
                value={form.name ?? ''}
                status={faulty(e, '/form/name')}
                onChange={(x) => set({ name: x.target.value })}
              />
            </Field>
            <Field id="family-interference" label="Interference">
              <Select
                id="family-interference"
                value={form.interference}
                popupMatchSelectWidth={false}
                onChange={(interference) => set({ interference })}
                options={[
                  { value: 'YES', label: 'yes: valves and pistons meet' },
                  { value: 'NO', label: 'no' },
                  { value: 'UNKNOWN', label: 'unknown: works as yes' },
                ]}
              />
            </Field>
          </div>
          <div className="fields">
            {form.loops.map((l, i) => (
              <Field
                key={l.code}
                id={`loop-${l.code}`}
                label={`${l.name}, ${l.counted}`}
                error={e}
                at={`/form/loops/${i}/teeth`}
              >
                <NumberField
                  id={`loop-${l.code}`}
                  value={l.teeth}
                  usual={usual('LOOP_TEETH')}
                  suffix={l.counted}
                  status={faulty(e, `/form/loops/${i}/teeth`)}
                  onChange={(teeth) => line('loops', i, { teeth })}
                />
              </Field>
            ))}
            <Field
              id="family-origin"
              label="Where limits and torques come from"
              error={e}
              at="/form/origin"
              grow
            >
              <Input
                id="family-origin"
                maxLength={120}
                placeholder="such as: maker's instructions, edition and page"
                value={form.origin ?? ''}
                status={faulty(e, '/form/origin')}
                onChange={(x) => set({ origin: x.target.value })}
              />
            </Field>
          </div>
          {extras}
        </section>
        <section>
          <h2>What is renewed</h2>
          <table className="plain answers">
            <thead>
              <tr>
                <th>Sold with the job</th>
                <th>Limit</th>
                <th>or after</th>
                <th>Hard use</th>
                <th>or after</th>
                <th>Part number</th>
                <th>Price each</th>
              </tr>
            </thead>
            <tbody>
              {form.items.map((item, i) => {
                const at = `/form/items/${i}`;
                const n = (
                  key: 'km' | 'months' | 'severeKm' | 'severeMonths',
                  unit: 'months' | 'distance',
                  range: readonly [number, number] | undefined,
                  label: string,
                ) => {
                  const field = {
                    label: `${item.name}: ${label}`,
                    value: item[key],
                    usual: range,
                    status: faulty(e, `${at}/${key}`),
                    onChange: (v: number | undefined) => line('items', i, { [key]: v }),
                  };
                  return (
                    <td>
                      {unit === 'months' ? (
                        <NumberField {...field} unit={unit} />
                      ) : (
                        <DistanceField {...field} />
                      )}
                      {cell(`${at}/${key}`)}
                    </td>
                  );
                };
                return (
                  <tr key={item.code} className={item.included ? '' : 'left-out'}>
                    <td>
                      <Checkbox
                        checked={item.included}
                        onChange={(x) => line('items', i, { included: x.target.checked })}
                      >
                        {item.name}
                      </Checkbox>
                      {cell(`${at}/included`)}
                    </td>
                    {item.included ? (
                      <>
                        {n('km', 'distance', usual('LIMIT_KM'), `limit, ${distanceUnit()}`)}
                        {n('months', 'months', usual('LIMIT_MONTHS'), 'limit, months')}
                        {n(
                          'severeKm',
                          'distance',
                          usual('LIMIT_KM'),
                          `limit under hard use, ${distanceUnit()}`,
                        )}
                        {n(
                          'severeMonths',
                          'months',
                          usual('LIMIT_MONTHS'),
                          'limit under hard use, months',
                        )}
                        <td>
                          <Input
                            className="mono"
                            aria-label={`${item.name}: part number`}
                            maxLength={40}
                            value={item.number ?? ''}
                            status={faulty(e, `${at}/number`)}
                            onChange={(x) => line('items', i, { number: x.target.value })}
                          />
                          {cell(`${at}/number`)}
                        </td>
                        <td>
                          {money(
                            `price-${item.code}`,
                            `${at}/priceMinor`,
                            item.priceMinor,
                            (priceMinor) => line('items', i, { priceMinor }),
                            `${item.name}: price each`,
                          )}
                        </td>
                      </>
                    ) : (
                      <td colSpan={6} className="hint">
                        not sold with this family
                      </td>
                    )}
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
        <section>
          <h2>Joints</h2>
          <p className="hint">
            A critical joint without a torque cannot be signed off until the figure is entered on
            the card.
          </p>
          <table className="plain answers">
            <thead>
              <tr>
                <th>Joint</th>
                <th>Bolts</th>
                <th>Torque</th>
                <th>then turned</th>
                <th>Measured, never felt</th>
              </tr>
            </thead>
            <tbody>
              {form.joints.map((j, i) => {
                const at = `/form/joints/${i}`;
                return (
                  <tr key={j.code}>
                    <td>
                      {j.name}
                      {j.oneTime && <span className="second">new fasteners each time</span>}
                    </td>
                    <td>
                      <NumberField
                        label={`${j.name}: bolts`}
                        value={j.bolts}
                        status={faulty(e, `${at}/bolts`)}
                        onChange={(v) => line('joints', i, { bolts: v ?? 0 })}
                      />
                      {cell(`${at}/bolts`)}
                    </td>
                    <td>
                      <NumberField
                        label={`${j.name}: torque, N·m`}
                        value={j.torqueNm}
                        unit="N·m"
                        decimals={1}
                        usual={usual('TORQUE_NM')}
                        placeholder="not on file"
                        status={faulty(e, `${at}/torqueNm`)}
                        onChange={(torqueNm) => line('joints', i, { torqueNm })}
                      />
                      {cell(`${at}/torqueNm`)}
                    </td>
                    <td>
                      <NumberField
                        label={`${j.name}: angle after the torque`}
                        value={j.angleDegrees}
                        unit="°"
                        status={faulty(e, `${at}/angleDegrees`)}
                        onChange={(angleDegrees) => line('joints', i, { angleDegrees })}
                      />
                      {cell(`${at}/angleDegrees`)}
                    </td>
                    <td>
                      <Checkbox
                        aria-label={`${j.name} is measured, never felt`}
                        checked={j.critical}
                        onChange={(x) => line('joints', i, { critical: x.target.checked })}
                      >
                        critical
                      </Checkbox>
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </section>
        {(form.looks.length > 0 || form.positions.length > 0) && (
          <section className="form">
            <h2>What is measured</h2>
            {form.looks.map((k, i) => (
              <div className="fields" key={k.code}>
                {(['low', 'high'] as const).map((end) => (
                  <Field
                    key={end}
                    id={`look-${k.code}-${end}`}
                    label={`${k.name}, ${end === 'low' ? 'at least' : 'at most'}`}
                    error={e}
                    at={`/form/looks/${i}/${end}`}
                  >
                    <NumberField
                      id={`look-${k.code}-${end}`}
                      value={k[end]}
                      suffix={k.unit}
                      decimals={2}
                      placeholder={k.window ? undefined : 'not on file'}
                      status={faulty(e, `/form/looks/${i}/${end}`)}
                      onChange={(v) => line('looks', i, { [end]: v })}
                    />
                  </Field>
                ))}
              </div>
            ))}
            {form.positions.length > 0 && (
              <div className="fields">
                {form.positions.map((p, i) => (
                  <Field
                    key={p.code}
                    id={`position-${p.code}`}
                    label={`${p.name}, degrees of the crank`}
                    error={e}
                    at={`/form/positions/${i}/degrees`}
                  >
                    <NumberField
                      id={`position-${p.code}`}
                      value={p.degrees}
                      unit="°"
                      status={faulty(e, `/form/positions/${i}/degrees`)}
                      onChange={(degrees) => line('positions', i, { degrees })}
                    />
                  </Field>
                ))}
              </div>
            )}
          </section>
        )}
        <section>
          <h2>Minutes</h2>
          <p className="hint">
            {asked.copy
              ? 'As in the book it was begun from.'
              : 'Usual minutes of such work; write your own over them.'}
          </p>
          <div className="minutes">
            {form.steps.map((s, i) => (
              <div key={s.code}>
                <label htmlFor={`step-${s.code}`}>{s.title}</label>
                <NumberField
                  id={`step-${s.code}`}
                  value={s.minutes}
                  unit="min"
                  usual={usual('STEP_MINUTES')}
                  status={faulty(e, `/form/steps/${i}/minutes`)}
                  onChange={(v) => line('steps', i, { minutes: v ?? 0 })}
                />
                {cell(`/form/steps/${i}/minutes`)}
              </div>
            ))}
          </div>
        </section>
        <section className="form">
          <h2>Fluids, and what a failure costs</h2>
          <div className="fields">
            {form.fluids.map((f, i) => (
              <Field
                key={f.code}
                id={`fluid-${f.code}`}
                label={`${f.name}, filling`}
                error={e}
                at={`/form/fluids/${i}/litres`}
              >
                <NumberField
                  id={`fluid-${f.code}`}
                  value={f.litres}
                  unit="l"
                  decimals={1}
                  usual={usual('LITRES')}
                  placeholder="not on file"
                  status={faulty(e, `/form/fluids/${i}/litres`)}
                  onChange={(litres) => line('fluids', i, { litres })}
                />
              </Field>
            ))}
            <div>
              <label htmlFor="repair-likely">Repair, likely</label>
              {money('repair-likely', '/form/repairLikelyMinor', form.repairLikelyMinor, (v) =>
                set({ repairLikelyMinor: v }),
              )}
            </div>
            <div>
              <label htmlFor="repair-low">at least</label>
              {money('repair-low', '/form/repairLowMinor', form.repairLowMinor, (v) =>
                set({ repairLowMinor: v }),
              )}
            </div>
            <div>
              <label htmlFor="repair-high">at most</label>
              {money('repair-high', '/form/repairHighMinor', form.repairHighMinor, (v) =>
                set({ repairHighMinor: v }),
              )}
            </div>
          </div>
        </section>
      </div>
      <aside className="engine-state" aria-label="What this gives">
        <h2>Proof</h2>
        <ProblemNote error={check.error} />
        {check.data && <Purposes check={check.data} />}
        {check.data && check.data.gaps.length > 0 && (
          <>
            <h2>Not on file</h2>
            <dl className="gaps">
              {check.data.gaps.map((g) => (
                <div key={g.what + g.blocks}>
                  <dt>{g.what}</dt>
                  <dd>{g.blocks}</dd>
                </div>
              ))}
            </dl>
          </>
        )}
        {e && <ProblemNote error={e} />}
        {known.length > 1 && (
          <p className="hint">{known.length} fields are at fault; each says why.</p>
        )}
        <div className="actions">
          <Button type="primary" htmlType="submit" loading={file.isPending}>
            File the family
          </Button>
        </div>
        <p className="hint">
          Everything else of the book, such as pins, cautions and the drawing, is written under
          “Change the book” afterwards.
        </p>
      </aside>
    </form>
  );
}

const digits = (currency: string) => amountOf(0, currency).split('.')[1]?.length ?? 0;

function Purposes({ check }: { check: Schemas['FormCheck'] }) {
  const open = check.purposes.filter((p) => !p.proven);
  const longest = Math.max(0, ...check.purposes.map((p) => p.steps));
  if (open.length === 0)
    return (
      <p className="proven">
        ✓ Every card is proven: {check.purposes.length} purposes, up to {longest} steps.
      </p>
    );
  return (
    <>
      <p className="warning-note">
        {open.length} of {check.purposes.length} cards are not proven; no card is handed out for
        them.
      </p>
      <dl className="gaps">
        {open.map((p) => (
          <div key={p.name}>
            <dt>{p.name}</dt>
            <dd>{p.breaches[0]}</dd>
          </div>
        ))}
      </dl>
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import { AutoComplete, Button, Checkbox, Input, Select } from 'antd';
import { Fragment, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { capital, formatDate, formatMoment, vehicleCount } from '../../shared/format';
import { CardForm, faulty, Field } from '../../shared/forms';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { ownersQuery } from '../../shared/queries';
import { StandingCell, VehicleCell } from '../../shared/VehicleCells';
import {
  ownerQuery,
  useKeepOwner,
  useMergeOwner,
  useSplitOwner,
  useUndoOwner,
  type OwnerPage,
} from './ownerQueries';
import { OwnerData } from './OwnerData';

const FIELDS = ['/name', '/address', '/email', '/prefers', '/language', '/phones', '/speakers'];

const NO_PHONE = { number: '', label: '' };

const besideAPhone = (count: number) =>
  Array.from({ length: count }, (_, i) => [`/phones/${i}/number`, `/phones/${i}/label`]).flat();

/** An owner: what is on file, the vehicles, and records that were one owner or two. */
export default function Owner() {
  const id = Number(useParams().id);
  const { data: page, error } = useQuery(ownerQuery(id));
  if (error) return <ProblemNote error={error} />;
  if (!page) return <p className="hint loading">Reading the owner…</p>;
  return (
    <div className="page owner-page">
      <h1>{page.owner.name}</h1>
      <div className="two-columns">
        {/* a newer version is a new form: what stands in it was typed over the old one */}
        <OnFile key={`${page.owner.id} ${page.owner.version}`} page={page} />
        <div>
          <Vehicles page={page} />
          <Alike page={page} />
          <Changes page={page} />
          <OwnerData page={page} />
        </div>
      </div>
    </div>
  );
}

function OnFile({ page }: { page: OwnerPage }) {
  const [o, setO] = useState({
    ...page.owner,
    phones: page.owner.phones.length > 0 ? page.owner.phones : [NO_PHONE],
  });
  const [kept, setKept] = useState(false);
  const keep = useKeepOwner(page.owner.id, () => setKept(true));
  const set = (part: Partial<typeof o>) => {
    setKept(false);
    setO({ ...o, ...part });
  };
  const phones = (change: (all: typeof o.phones) => typeof o.phones) =>
    set({ phones: change([...o.phones]) });
  const beside =
    keep.error instanceof Problem && keep.error.onlyAt(...FIELDS, ...besideAPhone(o.phones.length));
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        // what stays empty is not sent, nor shown any more: a message then stands beside the row it is about
        const phones = o.phones.filter((p) => p.number.trim() || p.label.trim());
        setO({ ...o, phones: phones.length > 0 ? phones : [NO_PHONE] });
        keep.mutate({ ...o, phones });
      }}
    >
      <h2>On file</h2>
      <Field id="name" label="Name" error={keep.error} at="/name">
        <Input
          id="name"
          value={o.name}
          status={faulty(keep.error, '/name')}
          onChange={(e) => set({ name: e.target.value })}
        />
      </Field>
      <Field id="kind" label="Is a" error={keep.error} at="/kind">
        <Select
          id="kind"
          value={o.kind}
          onChange={(kind) => set({ kind })}
          options={page.kinds.map((k) => ({ value: k.code as typeof o.kind, label: k.words }))}
        />
      </Field>
      <fieldset className="phones">
        <legend>Phones; the first is the one to ring</legend>
        {o.phones.map((p, i) => (
          <Fragment key={i}>
            <div className="phone-row">
              <Input
                aria-label={`Phone ${i + 1}`}
                value={p.number}
                status={faulty(keep.error, `/phones/${i}/number`)}
                onChange={(e) =>
                  phones((all) =>
                    all.map((x, k) => (k === i ? { ...p, number: e.target.value } : x)),
                  )
                }
              />
              <Input
                aria-label={`Whose or which, phone ${i + 1}`}
                placeholder="home, work, whose"
                value={p.label}
                onChange={(e) =>
                  phones((all) =>
                    all.map((x, k) => (k === i ? { ...p, label: e.target.value } : x)),
                  )
                }
              />
              {i > 0 && (
                <button
                  type="button"
                  className="action"
                  onClick={() => phones((all) => [p, ...all.filter((_, k) => k !== i)])}
                >
                  Ring first
                </button>
              )}
              {o.phones.length > 1 && (
                <button
                  type="button"
                  className="action"
                  aria-label={`Take off phone ${i + 1}`}
                  onClick={() => phones((all) => all.filter((_, k) => k !== i))}
                >
                  Take off
                </button>
              )}
            </div>
            <FieldNote error={keep.error} at={`/phones/${i}/number`} />
            <FieldNote error={keep.error} at={`/phones/${i}/label`} />
          </Fragment>
        ))}
        <FieldNote error={keep.error} at="/phones" />
        <button
          type="button"
          className="action"
          onClick={() => phones((all) => [...all, NO_PHONE])}
        >
          Another number
        </button>
      </fieldset>
      <Field id="email" label="E-mail, if known" error={keep.error} at="/email">
        <Input
          id="email"
          value={o.email}
          status={faulty(keep.error, '/email')}
          onChange={(e) => set({ email: e.target.value })}
        />
      </Field>
      <Field id="address" label="Address, if known" error={keep.error} at="/address">
        <Input.TextArea
          id="address"
          rows={3}
          value={o.address}
          status={faulty(keep.error, '/address')}
          onChange={(e) => set({ address: e.target.value })}
        />
      </Field>
      <Field id="prefers" label="Likes to hear" error={keep.error} at="/prefers">
        <Select
          id="prefers"
          value={o.prefers}
          onChange={(prefers) => set({ prefers })}
          options={page.prefers.map((p) => ({
            value: p.code as typeof o.prefers,
            label: p.words,
          }))}
        />
      </Field>
      <Field
        id="language"
        label="Language of letters, its two letters; empty: the workshop's"
        error={keep.error}
        at="/language"
      >
        <Input
          id="language"
          value={o.language}
          status={faulty(keep.error, '/language')}
          onChange={(e) => set({ language: e.target.value })}
        />
      </Field>
      <Field
        id="speakers"
        label="Who may answer for the owner; nobody named: anybody"
        error={keep.error}
        at="/speakers"
      >
        <Select
          id="speakers"
          mode="tags"
          value={o.speakers}
          placeholder="a name, then Enter"
          notFoundContent={null}
          suffixIcon={null}
          status={faulty(keep.error, '/speakers')}
          onChange={(speakers: string[]) => set({ speakers })}
        />
      </Field>
      <Checkbox checked={o.mayWrite} onChange={(e) => set({ mayWrite: e.target.checked })}>
        may be written to
      </Checkbox>
      {!beside && <ProblemNote error={keep.error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={keep.isPending}>
          {`Keep, for ${vehicleCount(page.vehicles.length)}`}
        </Button>
        {kept && <span role="status">Kept.</span>}
      </div>
    </form>
  );
}

function Vehicles({ page }: { page: OwnerPage }) {
  const [chosen, setChosen] = useState<number[]>([]);
  const [name, setName] = useState('');
  const [phone, setPhone] = useState('');
  const [splitting, setSplitting] = useState(false);
  const done = () => {
    setSplitting(false);
    setChosen([]);
    setName('');
    setPhone('');
  };
  const split = useSplitOwner(page.owner.id, done);
  return (
    <section>
      <h2>{vehicleCount(page.vehicles.length)}</h2>
      <table className="plain">
        <thead>
          <tr>
            {splitting && (
              <th>
                <span className="unseen">Another owner's</span>
              </th>
            )}
            <th>Vehicle</th>
            <th>How it stands</th>
            <th className="num">Act by</th>
          </tr>
        </thead>
        <tbody>
          {page.vehicles.map((v) => (
            <tr key={v.vehicleId}>
              {splitting && (
                <td>
                  <Checkbox
                    aria-label={`${v.registration} is another's`}
                    checked={chosen.includes(v.vehicleId)}
                    onChange={(e) =>
                      setChosen(
                        e.target.checked
                          ? [...chosen, v.vehicleId]
                          : chosen.filter((c) => c !== v.vehicleId),
                      )
                    }
                  />
                </td>
              )}
              <VehicleCell vehicle={v} />
              <StandingCell status={v.status} words={v.statusWords} />
              <td className="num">{v.actBy ? formatDate(v.actBy) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {!splitting && page.vehicles.length > 1 && (
        <button type="button" className="action" onClick={() => setSplitting(true)}>
          Some are another's…
        </button>
      )}
      {splitting && (
        <CardForm
          title="Some are another's"
          submit={chosen.length > 0 ? `Give ${vehicleCount(chosen.length)} over` : 'Give over'}
          error={split.error}
          at={['/name', '/phone', '/vehicles']}
          pending={split.isPending}
          onSubmit={() =>
            split.mutate({ version: page.owner.version, name, phone, vehicles: chosen })
          }
          onClose={done}
        >
          <Field id="other" label="Name of the other owner" error={split.error} at="/name">
            <Input
              id="other"
              value={name}
              status={faulty(split.error, '/name')}
              onChange={(e) => setName(e.target.value)}
            />
          </Field>
          <Field id="other-phone" label="Phone, if known" error={split.error} at="/phone">
            <Input
              id="other-phone"
              value={phone}
              status={faulty(split.error, '/phone')}
              onChange={(e) => setPhone(e.target.value)}
            />
          </Field>
          <Field id="which" label="Tick the vehicles above" error={split.error} at="/vehicles">
            <span id="which">{vehicleCount(chosen.length)} chosen</span>
          </Field>
        </CardForm>
      )}
    </section>
  );
}

type Row = Schemas['OwnerRow'];

function Alike({ page }: { page: OwnerPage }) {
  const navigate = useNavigate();
  const [looking, setLooking] = useState(false);
  const [q, setQ] = useState('');
  const [other, setOther] = useState<Row>();
  const { data: list } = useQuery({ ...ownersQuery(q.trim(), 12), enabled: q.trim().length > 1 });
  // the other's version is asked when the two are made one, not when the list was read
  const { data: otherPage, error } = useQuery({
    ...ownerQuery(other?.id ?? 0),
    enabled: other !== undefined,
  });
  const merge = useMergeOwner((now) => {
    setOther(undefined);
    setLooking(false);
    navigate(`/owners/${now.owner.id}`, { replace: true });
  });
  const words = (o: Row) => `${o.name}, ${o.phone ?? 'no phone'}, ${vehicleCount(o.vehicles)}`;
  return (
    <section>
      {page.alike.length > 0 && (
        <>
          <h2>May be the same</h2>
          <ul className="plain">
            {page.alike.map((a) => (
              <li key={a.id}>
                <Link to={`/owners/${a.id}`}>{words(a)}</Link>{' '}
                <button type="button" className="action" onClick={() => setOther(a)}>
                  Make one
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
      {!looking && !other && (
        <button type="button" className="action" onClick={() => setLooking(true)}>
          Is the same as another…
        </button>
      )}
      {looking && !other && (
        <div className="form">
          <label htmlFor="same">The other's name or phone</label>
          <AutoComplete
            id="same"
            autoFocus
            value={q}
            onChange={setQ}
            onSelect={(v) => setOther(list?.rows.find((r) => String(r.id) === v))}
            options={(list?.rows ?? [])
              .filter((r) => r.id !== page.owner.id)
              .map((r) => ({ value: String(r.id), label: words(r) }))}
          />
        </div>
      )}
      {other && (
        <CardForm
          title={`${page.owner.name} and ${other.name} are one`}
          submit={`Keep ${other.name}`}
          error={merge.error ?? error}
          pending={merge.isPending}
          disabled={!otherPage}
          onSubmit={() =>
            otherPage &&
            merge.mutate({
              id: page.owner.id,
              version: page.owner.version,
              into: otherPage.owner.id,
              intoVersion: otherPage.owner.version,
            })
          }
          onClose={() => {
            setOther(undefined);
            setLooking(false);
          }}
        >
          <p>
            {capital(vehicleCount(page.vehicles.length))} and the phones go to {other.name}; what{' '}
            {other.name} lacks is taken from here. It can be undone.
          </p>
        </CardForm>
      )}
    </section>
  );
}

function Changes({ page }: { page: OwnerPage }) {
  const undo = useUndoOwner(page.owner.id, () => undefined);
  if (page.changes.length === 0) return null;
  return (
    <section>
      <h2>Made one, or two</h2>
      <ProblemNote error={undo.error} />
      <ul className="plain">
        {page.changes.map((c) => (
          <li key={c.id}>
            {formatMoment(c.at)}, {c.by}:{' '}
            {c.what === 'MERGED'
              ? `${c.fromName} became one with ${c.toName}`
              : `${c.toName} taken out of ${c.fromName}`}
            , {vehicleCount(c.vehicles)}{' '}
            <button
              type="button"
              className="action"
              disabled={undo.isPending}
              onClick={() => undo.mutate(c.id)}
            >
              Undo
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Popconfirm, Select } from 'antd';
import { useState, type FormEvent, type ReactNode } from 'react';
import type { Schemas } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { DAYS } from '../../shared/days';
import {
  baysQuery,
  setupFleetsQuery,
  useAddBay,
  useAddFleet,
  useChangeBay,
  useChangeFleet,
  useGiveUpFleet,
} from './setupQueries';
import { NumberField } from '../../shared/ui/NumberField';
import { UsageClasses } from './UsageClasses';
import { formatNumber } from '../../shared/format';
import { Leave } from '../../shared/ui/Leave';

type Bay = Schemas['Bay'];
type Fleet = Schemas['Fleet'];

const CLASSES = [
  { value: 1, label: 'light vehicles' },
  { value: 2, label: 'light and heavy vehicles' },
];

/** Where work is promised, and whose vehicles come as a fleet. */
export default function Places() {
  return (
    <section>
      <Bays />
      <Fleets />
      <UsageClasses />
    </section>
  );
}

function Bays() {
  const { data: bays, error, refetch } = useQuery(baysQuery);
  const change = useChangeBay(() => undefined);
  const [open, setOpen] = useState<Bay | 'new'>();
  return (
    <>
      <h2>Bays</h2>
      <ProblemNote error={error ?? change.error} retry={error ? () => refetch() : undefined} />
      {bays?.length === 0 && (
        <p className="muted">
          No bay yet. A job gets its place on the board in a bay, so that none can be promised
          before there is one.
        </p>
      )}
      {bays && bays.length > 0 && (
        <table className="plain people">
          <thead>
            <tr>
              <th>Bay</th>
              <th>What it is</th>
              <th>Takes</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {bays.map((b) => (
              <tr key={b.id} className={b.active ? '' : 'left-out'}>
                <td>{b.name}</td>
                <td>
                  {[
                    b.posts === undefined
                      ? ''
                      : b.posts === 0
                        ? 'no posts'
                        : `${b.posts} ${b.posts === 1 ? 'post' : 'posts'}`,
                    b.carriesKg === undefined ? '' : `${formatNumber(b.carriesKg / 1000, 2)} t`,
                    b.note,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </td>
                <td>
                  {b.active ? CLASSES.find((c) => c.value === b.liftClass)?.label : 'given up'}
                </td>
                <td className="num">
                  {b.active && (
                    <button className="link" onClick={() => setOpen(b)}>
                      Change
                    </button>
                  )}{' '}
                  <button
                    className="link"
                    onClick={() => change.mutate({ ...b, active: !b.active })}
                  >
                    {b.active ? 'Give up' : 'Take back'}
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {open ? (
        <BayForm
          key={open === 'new' ? 'new' : open.id}
          bay={open === 'new' ? undefined : open}
          onDone={() => setOpen(undefined)}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>Add a bay</Button>
      )}
    </>
  );
}

function BayForm({ bay, onDone }: { bay?: Bay; onDone: () => void }) {
  const [b, setB] = useState<Schemas['NewBay']>(bay ?? { name: '', note: '', liftClass: 1 });
  const add = useAddBay(onDone);
  const change = useChangeBay(onDone);
  const sent = bay ? change : add;
  return (
    <Form
      beside={['/name', '/note', '/liftClass', '/posts', '/carriesKg']}
      title={bay ? `Change ${bay.name}` : 'Add a bay'}
      send={bay ? 'Save' : 'Add'}
      pending={sent.isPending}
      error={sent.error}
      onDone={onDone}
      onSend={() => (bay ? change.mutate({ ...bay, ...b }) : add.mutate(b))}
    >
      <div>
        <label htmlFor="bay-name">Name</label>
        <Input
          id="bay-name"
          autoFocus
          value={b.name}
          onChange={(e) => setB({ ...b, name: e.target.value })}
        />
        <FieldNote error={sent.error} at="/name" />
      </div>
      <div>
        <label htmlFor="bay-posts">Posts of its lift, 0 for none</label>
        <NumberField id="bay-posts" value={b.posts} onChange={(posts) => setB({ ...b, posts })} />
        <FieldNote error={sent.error} at="/posts" />
      </div>
      <div>
        <label htmlFor="bay-carries">Carries</label>
        <NumberField
          id="bay-carries"
          unit="kg"
          value={b.carriesKg}
          onChange={(carriesKg) => setB({ ...b, carriesKg })}
        />
        <FieldNote error={sent.error} at="/carriesKg" />
      </div>
      <div className="grow">
        <label htmlFor="bay-note">What else it is, such as: high roof</label>
        <Input
          id="bay-note"
          value={b.note}
          onChange={(e) => setB({ ...b, note: e.target.value })}
        />
        <FieldNote error={sent.error} at="/note" />
      </div>
      <div>
        <label htmlFor="bay-class">Takes</label>
        <Select
          id="bay-class"
          value={b.liftClass}
          options={CLASSES}
          onChange={(liftClass) => setB({ ...b, liftClass })}
        />
        <FieldNote error={sent.error} at="/liftClass" />
      </div>
    </Form>
  );
}

function Fleets() {
  const { data: fleets, error, refetch } = useQuery(setupFleetsQuery);
  const giveUp = useGiveUpFleet();
  const [open, setOpen] = useState<Fleet | 'new'>();
  return (
    <>
      <h2>Fleets</h2>
      <ProblemNote error={error ?? giveUp.error} retry={error ? () => refetch() : undefined} />
      {fleets?.length === 0 && (
        <p className="muted">
          No fleet yet. A fleet says how many of its vehicles may be off the road on one day, and on
          which days they can come.
        </p>
      )}
      {fleets && fleets.length > 0 && (
        <table className="plain people">
          <thead>
            <tr>
              <th>Fleet</th>
              <th>Contact</th>
              <th>Phone</th>
              <th>Off the road at once</th>
              <th>Days</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {fleets.map((f) => (
              <tr key={f.id}>
                <td>{f.name}</td>
                <td>{f.contactName}</td>
                <td>{f.phone}</td>
                <td>at most {f.offRoadCap}</td>
                <td>
                  {f.days.length === 0
                    ? 'any day'
                    : DAYS.filter((d) => f.days.includes(d.value))
                        .map((d) => d.label)
                        .join(' ')}
                </td>
                <td className="num">
                  <button className="link" onClick={() => setOpen(f)}>
                    Change
                  </button>{' '}
                  <Popconfirm
                    title={`Give ${f.name} up?`}
                    description="A fleet of the same name added later takes it up again."
                    okText="Give it up"
                    cancelText="Leave it"
                    onConfirm={() => giveUp.mutate(f)}
                  >
                    <button className="link">Give up</button>
                  </Popconfirm>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {open ? (
        <FleetForm
          key={open === 'new' ? 'new' : open.id}
          fleet={open === 'new' ? undefined : open}
          onDone={() => setOpen(undefined)}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>Add a fleet</Button>
      )}
    </>
  );
}

function FleetForm({ fleet, onDone }: { fleet?: Fleet; onDone: () => void }) {
  const [f, setF] = useState<Schemas['NewFleet']>(
    fleet ?? { name: '', offRoadCap: 1, contactName: '', phone: '', days: [] },
  );
  const add = useAddFleet(onDone);
  const change = useChangeFleet(onDone);
  const sent = fleet ? change : add;
  return (
    <Form
      beside={['/name', '/contactName', '/phone', '/offRoadCap']}
      title={fleet ? `Change ${fleet.name}` : 'Add a fleet'}
      send={fleet ? 'Save' : 'Add'}
      pending={sent.isPending}
      error={sent.error}
      onDone={onDone}
      onSend={() => (fleet ? change.mutate({ ...fleet, ...f }) : add.mutate(f))}
    >
      <div className="grow">
        <label htmlFor="fleet-name">Name</label>
        <Input
          id="fleet-name"
          autoFocus
          value={f.name}
          onChange={(e) => setF({ ...f, name: e.target.value })}
        />
        <FieldNote error={sent.error} at="/name" />
      </div>
      <div>
        <label htmlFor="fleet-contact">Contact</label>
        <Input
          id="fleet-contact"
          value={f.contactName}
          onChange={(e) => setF({ ...f, contactName: e.target.value })}
        />
        <FieldNote error={sent.error} at="/contactName" />
      </div>
      <div>
        <label htmlFor="fleet-phone">Phone</label>
        <Input
          id="fleet-phone"
          value={f.phone}
          onChange={(e) => setF({ ...f, phone: e.target.value })}
        />
        <FieldNote error={sent.error} at="/phone" />
      </div>
      <div>
        <label htmlFor="fleet-cap">Vehicles off the road at once, at most</label>
        <NumberField
          id="fleet-cap"
          value={f.offRoadCap}
          onChange={(cap) => setF({ ...f, offRoadCap: cap ?? 0 })}
        />
        <FieldNote error={sent.error} at="/offRoadCap" />
      </div>
      <fieldset>
        <legend>Days they can come; none ticked: any day</legend>
        <Checkbox.Group options={DAYS} value={f.days} onChange={(days) => setF({ ...f, days })} />
      </fieldset>
    </Form>
  );
}

function Form(props: {
  title: string;
  send: string;
  pending: boolean;
  error: unknown;
  beside: string[];
  onSend: () => void;
  onDone: () => void;
  children: ReactNode;
}) {
  return (
    <form
      className="form card-form"
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        props.onSend();
      }}
    >
      <h3>{props.title}</h3>
      <div className="fields">{props.children}</div>
      <ProblemNote error={props.error} beside={props.beside} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={props.pending}>
          {props.send}
        </Button>
        <Leave onClick={props.onDone} />
      </div>
    </form>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popconfirm } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatKm, formatWhole } from '../../shared/format';
import { CardForm, Field, faulty } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { DistanceField } from '../../shared/ui/DistanceField';
import {
  usageClassesQuery,
  useAddUsageClass,
  useChangeUsageClass,
  useGiveUpUsageClass,
} from './setupQueries';

type Listed = Schemas['Listed'];

/** What vehicles are used for; a new vehicle is taken to go as far in a year as its class does. */
export function UsageClasses() {
  const { data: classes, error, refetch } = useQuery(usageClassesQuery);
  const giveUp = useGiveUpUsageClass();
  const [open, setOpen] = useState<Listed | 'new'>();
  return (
    <>
      <h2>Usage classes</h2>
      <p className="hint">
        How far a vehicle goes in a year until its own readings say better. What your own vehicles
        have taught is under Assumptions.
      </p>
      <ProblemNote error={error ?? giveUp.error} retry={error ? () => refetch() : undefined} />
      {classes && (
        <table className="plain people">
          <thead>
            <tr>
              <th>Class</th>
              <th className="num">A year</th>
              <th className="num">Spread between vehicles</th>
              <th className="num">Vehicles</th>
              <th>
                <span className="unseen">What to do</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {classes.map((c) => (
              <tr key={c.code}>
                <td>{c.name}</td>
                <td className="num">{formatKm(c.meanKmPerYear)}</td>
                <td className="num">{formatKm(c.sdKmPerYear)}</td>
                <td className="num">{formatWhole(c.vehicles)}</td>
                <td className="num">
                  <button className="link" onClick={() => setOpen(c)}>
                    Change
                  </button>
                  {c.vehicles === 0 && (
                    <Popconfirm
                      title={`Give “${c.name}” up?`}
                      okText="Give it up"
                      cancelText="Leave it"
                      onConfirm={() => giveUp.mutate(c)}
                    >
                      <button className="link">Give up</button>
                    </Popconfirm>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {open ? (
        <ClassForm
          key={open === 'new' ? 'new' : open.code}
          listed={open === 'new' ? undefined : open}
          onDone={() => setOpen(undefined)}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>Add a usage class</Button>
      )}
    </>
  );
}

function ClassForm({ listed, onDone }: { listed?: Listed; onDone: () => void }) {
  const [name, setName] = useState(listed?.name ?? '');
  const [mean, setMean] = useState<number | undefined>(listed?.meanKmPerYear);
  const [spread, setSpread] = useState<number | undefined>(listed?.sdKmPerYear);
  const add = useAddUsageClass(onDone);
  const change = useChangeUsageClass(onDone);
  const sent = listed ? change : add;
  const values = { name, meanKm: mean ?? 0, sdKm: spread ?? 0 };
  return (
    <CardForm
      title={listed ? `Change ${listed.name}` : 'Add a usage class'}
      submit={listed ? 'Save' : 'Add'}
      error={sent.error}
      at={['/name', '/meanKm', '/sdKm']}
      pending={sent.isPending}
      disabled={mean === undefined || spread === undefined}
      onSubmit={() =>
        listed
          ? change.mutate({ ...values, code: listed.code, version: listed.version })
          : add.mutate(values)
      }
      onClose={onDone}
    >
      <div className="fields">
        <Field id="class-name" label="Name" error={sent.error} at="/name" grow>
          <Input
            id="class-name"
            autoFocus
            maxLength={60}
            value={name}
            status={faulty(sent.error, '/name')}
            onChange={(e) => setName(e.target.value)}
          />
        </Field>
        <Field id="class-mean" label="A year" error={sent.error} at="/meanKm">
          <DistanceField
            id="class-mean"
            value={mean}
            status={faulty(sent.error, '/meanKm')}
            onChange={setMean}
          />
        </Field>
        <Field
          id="class-spread"
          label="Two vehicles in three lie within"
          error={sent.error}
          at="/sdKm"
        >
          <DistanceField
            id="class-spread"
            value={spread}
            status={faulty(sent.error, '/sdKm')}
            onChange={setSpread}
          />
        </Field>
      </div>
    </CardForm>
  );
}

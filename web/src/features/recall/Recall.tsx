import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Radio, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { Problem } from '../../api/client';
import { formatDate, formatKm } from '../../shared/format';
import { faulty, Field } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { numberOf } from '../../shared/ui/spelling';
import { enginesQuery } from '../engines/engineQueries';
import {
  recallChoicesQuery,
  recallQuery,
  useFollowUps,
  type Asked,
  type By,
  type Row,
} from './recallQueries';

const WAYS: { value: By; label: string }[] = [
  { value: 'PART', label: 'a part' },
  { value: 'BATCH', label: 'a batch' },
  { value: 'JOINT', label: 'a joint’s value' },
  { value: 'BOOK', label: 'a version of the book' },
];

const keyOf = (r: Row, i: number) => `${r.vehicleId}-${r.jobId ?? ''}-${i}`;

/** Who has a part, a batch, a joint value or a version of the book; follow-ups of it in one touch. */
export default function Recall() {
  const [by, setBy] = useState<By>('PART');
  const [q, setQ] = useState('');
  const [family, setFamily] = useState('');
  const [joint, setJoint] = useState('');
  const [torque, setTorque] = useState('');
  const [version, setVersion] = useState<number>();
  const [asked, setAsked] = useState<Asked>();
  const { data: families } = useQuery(enginesQuery);
  const { data: choices } = useQuery(
    recallChoicesQuery(by === 'JOINT' || by === 'BOOK' ? family : ''),
  );
  const { data: rows, error, isFetching } = useQuery(recallQuery(asked));
  const named = by === 'PART' || by === 'BATCH';
  const nm = numberOf(torque, 2);
  const unread = torque.trim() !== '' && Number.isNaN(nm);
  const complete = named
    ? q.trim() !== ''
    : family !== '' && (by === 'JOINT' ? joint !== '' && !unread : version !== undefined);
  return (
    <div className="page recall">
      <div className="page-head">
        <h1>Recall</h1>
      </div>
      <p className="hint">
        Every vehicle that has it, with the day and the odometer of the work, as the list to ring
        by.
      </p>
      <form
        className="form recall-form"
        onSubmit={(e) => {
          e.preventDefault();
          setAsked({
            by,
            q,
            family: named ? '' : family,
            joint: by === 'JOINT' ? joint : '',
            newtonMetres: by === 'JOINT' && torque.trim() !== '' ? nm : undefined,
            version: by === 'BOOK' ? version : undefined,
          });
        }}
      >
        <Radio.Group
          aria-label="Who has"
          options={WAYS}
          value={by}
          onChange={(e) => {
            setBy(e.target.value as By);
            setAsked(undefined);
          }}
        />
        <div className="recall-fields">
          {named && (
            <Field
              id="recall-q"
              label={by === 'PART' ? 'Part number, or some of it' : 'Batch, or some of it'}
              error={error}
              at="/q"
            >
              <Input
                id="recall-q"
                value={q}
                status={faulty(error, '/q')}
                onChange={(e) => setQ(e.target.value)}
              />
            </Field>
          )}
          {!named && (
            <Field id="recall-family" label="Engine family" error={error} at="/family">
              <Select
                id="recall-family"
                showSearch
                optionFilterProp="label"
                value={family || undefined}
                placeholder="choose"
                options={families?.map((f) => ({ value: f.code, label: f.name }))}
                onChange={(v: string) => {
                  setFamily(v);
                  setJoint('');
                  setVersion(undefined);
                }}
              />
            </Field>
          )}
          {by === 'JOINT' && (
            <>
              <Field id="recall-joint" label="Joint" error={error} at="/joint">
                <Select
                  id="recall-joint"
                  showSearch
                  optionFilterProp="label"
                  value={joint || undefined}
                  placeholder="choose"
                  options={choices?.joints.map((j) => ({ value: j.code, label: j.name }))}
                  onChange={setJoint}
                />
              </Field>
              <Field
                id="recall-torque"
                label="Where the book asked for"
                error={error}
                at="/newtonMetres"
              >
                <Input
                  id="recall-torque"
                  value={torque}
                  suffix="N·m"
                  placeholder="any"
                  status={unread ? 'error' : undefined}
                  onChange={(e) => setTorque(e.target.value)}
                />
                {unread && <span className="field-note">This is not a figure.</span>}
              </Field>
            </>
          )}
          {by === 'BOOK' && (
            <Field id="recall-version" label="Version" error={error} at="/version">
              <Select
                id="recall-version"
                value={version}
                placeholder="choose"
                options={choices?.versions.map((v) => ({ value: v, label: `version ${v}` }))}
                onChange={setVersion}
              />
            </Field>
          )}
          <Button type="primary" htmlType="submit" loading={isFetching} disabled={!complete}>
            Find them
          </Button>
        </div>
        {!(error instanceof Problem && error.onlyAt('/q', '/family', '/joint', '/version')) && (
          <ProblemNote error={error} />
        )}
      </form>
      {asked && rows && <Found key={JSON.stringify(asked)} rows={rows} />}
    </div>
  );
}

function Found({ rows }: { rows: Row[] }) {
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [words, setWords] = useState('');
  const [urgent, setUrgent] = useState(false);
  const make = useFollowUps();
  if (rows.length === 0) {
    return <p role="status">No vehicle on file has it.</p>;
  }
  const chosen = rows.filter((r, i) => !left.has(keyOf(r, i)));
  const vehicles = new Set(rows.map((r) => r.vehicleId)).size;
  const turn = (key: string) => {
    const next = new Set(left);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  return (
    <>
      <p role="status">
        <b>
          {vehicles} {vehicles === 1 ? 'vehicle' : 'vehicles'}
        </b>
        {rows.length > vehicles && `, ${rows.length} times`}
      </p>
      <form
        className="form recall-form"
        onSubmit={(e) => {
          e.preventDefault();
          const targets = [...new Map(chosen.map((r) => [r.vehicleId, r])).values()];
          make.mutate({
            targets: targets.map((r) => ({ vehicleId: r.vehicleId, jobId: r.jobId })),
            words,
            urgent,
          });
        }}
      >
        <div className="recall-fields">
          <Field id="recall-words" label="What is to be done" error={make.error} at="/words" grow>
            <Input
              id="recall-words"
              value={words}
              maxLength={380}
              status={faulty(make.error, '/words')}
              onChange={(e) => setWords(e.target.value)}
            />
          </Field>
          <Checkbox checked={urgent} onChange={(e) => setUrgent(e.target.checked)}>
            Urgent
          </Checkbox>
          <Button
            type="primary"
            htmlType="submit"
            loading={make.isPending}
            disabled={words.trim() === '' || chosen.length === 0}
          >
            Make follow-ups
          </Button>
        </div>
        {!(make.error instanceof Problem && make.error.onlyAt('/words')) && (
          <ProblemNote error={make.error} />
        )}
        {make.data && (
          <p role="status">
            {make.data.made} made
            {make.data.open > 0 && `; ${make.data.open} had the same one open already`}.
          </p>
        )}
      </form>
      <table className="plain">
        <thead>
          <tr>
            <th>
              <span className="unseen">Chosen</span>
            </th>
            <th>Vehicle</th>
            <th>Owner</th>
            <th className="num">Day</th>
            <th className="num">Odometer</th>
            <th>What it has</th>
            <th>Work</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r, i) => (
            <tr key={keyOf(r, i)}>
              <td>
                <Checkbox
                  aria-label={`Follow up ${r.registration}`}
                  checked={!left.has(keyOf(r, i))}
                  onChange={() => turn(keyOf(r, i))}
                />
              </td>
              <td>
                <Link to={`/vehicles/${r.vehicleId}`} className="registration">
                  {r.registration}
                </Link>
                <span className="second">
                  {r.makeModel}
                  {r.state && `, ${r.state}`}
                </span>
              </td>
              <td>
                {r.ownerName}
                <span className="second">
                  <a href={`tel:${r.ownerPhone.replace(/\s/g, '')}`}>{r.ownerPhone}</a>
                </span>
              </td>
              <td className="num">{formatDate(r.on)}</td>
              <td className="num">{formatKm(r.km)}</td>
              <td>{r.what}</td>
              <td>{r.jobId ? <Link to={`/jobs/${r.jobId}`}>job {r.jobId}</Link> : 'elsewhere'}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

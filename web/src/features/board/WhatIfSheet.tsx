import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { Field } from '../../shared/forms';
import { addDays, formatHours } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';
import { useAcceptWhatIf, useAskWhatIf, type Board } from './boardQueries';
import { Changes, Compared, ToBeTold } from './Changes';
import { DateField } from '../../shared/ui/DateField';

type Kind = Schemas['AbsenceIn']['kind'];

const KINDS: { value: Kind; label: string }[] = [
  { value: 'TECHNICIAN', label: 'a technician is away' },
  { value: 'BAY', label: 'a bay is closed' },
  { value: 'TOOL_SET', label: 'a tool set is broken' },
  { value: 'FERRY', label: 'a delivery does not come' },
  { value: 'WORKSHOP', label: 'the workshop is closed' },
];

const FIELDS = ['/technicianId', '/bayId', '/familyCode', '/from', '/to', '/why'];

/** What moves if something fails, and what it costs, before anything changes. */
export function WhatIfSheet({ board, onClose }: { board: Board; onClose: () => void }) {
  const [kind, setKind] = useState<Kind>('TECHNICIAN');
  const [technicianId, setTechnician] = useState<number>();
  const [bayId, setBay] = useState<number>();
  const [familyCode, setFamily] = useState<string>();
  const [from, setFrom] = useState(addDays(board.today, 1));
  const [to, setTo] = useState(addDays(board.today, 1));
  const [why, setWhy] = useState('');
  const [takers, setTakers] = useState<Record<number, number | undefined>>({});
  const ask = useAskWhatIf();
  const accept = useAcceptWhatIf();
  const absence = { kind, technicianId, bayId, familyCode, from, to, why };
  const changed =
    <V,>(set: (v: V) => void) =>
    (v: V) => {
      set(v);
      // an answer to another question would be taken for one to this
      setTakers({});
      ask.reset();
      accept.reset();
    };
  const sets = [...new Map(board.toolSets.map((t) => [t.code, t.name])).entries()];
  const answer = ask.data;
  return (
    <section className="what-if-sheet" aria-label="What if">
      <form
        className="sheet-form"
        onSubmit={(e) => {
          e.preventDefault();
          ask.mutate(absence);
        }}
      >
        <div className="fields">
          <Field id="if-kind" label="What if">
            <Select
              id="if-kind"
              value={kind}
              popupMatchSelectWidth={false}
              onChange={changed(setKind)}
              options={KINDS}
            />
          </Field>
          {kind === 'TECHNICIAN' && (
            <Which
              id="if-technician"
              label="Technician"
              error={ask.error}
              at="/technicianId"
              value={technicianId}
              onChange={changed(setTechnician)}
              options={board.technicians.map((t) => ({ value: t.id, label: t.name }))}
            />
          )}
          {kind === 'BAY' && (
            <Which
              id="if-bay"
              label="Bay"
              error={ask.error}
              at="/bayId"
              value={bayId}
              onChange={changed(setBay)}
              options={board.bays.map((b) => ({ value: b.id, label: b.name }))}
            />
          )}
          {kind === 'TOOL_SET' && (
            <Which
              id="if-set"
              label="Tool set"
              error={ask.error}
              at="/familyCode"
              value={familyCode}
              onChange={changed(setFamily)}
              options={sets.map(([value, label]) => ({ value, label }))}
            />
          )}
          <Field id="if-from" label="From" error={ask.error} at="/from">
            <DateField
              id="if-from"
              value={from}
              onChange={(d) => {
                changed(setFrom)(d ?? '');
                if (d && to < d) setTo(d);
              }}
            />
          </Field>
          <Field id="if-to" label="to, that day too" error={ask.error} at="/to">
            <DateField id="if-to" value={to} onChange={(d) => changed(setTo)(d ?? '')} />
          </Field>
          <Field id="if-why" label="Because" error={ask.error} at="/why" grow>
            <Input
              id="if-why"
              value={why}
              placeholder="holiday, course, repair"
              onChange={(e) => setWhy(e.target.value)}
            />
          </Field>
          <Button htmlType="submit" loading={ask.isPending}>
            See what moves
          </Button>
          <button type="button" className="action quiet" onClick={onClose}>
            Close
          </button>
        </div>
      </form>
      <ProblemNote error={ask.error ?? accept.error} beside={FIELDS} />
      {answer && (
        <>
          <Compared before={answer.before} after={answer.after} labels={['now', 'then']} />
          {answer.struck.length === 0 && answer.onLift.length === 0 && (
            <p>Nothing on the board is struck by it.</p>
          )}
          {answer.struck.map((s) => (
            <p key={s.jobId} className={s.promiseBroken ? 'clash-note' : ''}>
              <b className="registration">{s.registration}</b> {s.words[0]}
              {s.promiseBroken && ' The promise cannot be kept: ring the owner.'}
            </p>
          ))}
          {answer.onLift.map((l) => (
            <OnLift
              key={l.jobId}
              lift={l}
              taker={takers[l.jobId]}
              onTake={(id) => setTakers({ ...takers, [l.jobId]: id })}
            />
          ))}
          <ToBeTold changes={answer.changes} />
          {answer.changes.length > 0 && <Changes changes={answer.changes} />}
          <div className="actions">
            <Button
              type="primary"
              loading={accept.isPending}
              onClick={() =>
                accept.mutate(
                  {
                    absence,
                    jobIds: answer.changes.map((c) => c.jobId),
                    takeOver: answer.onLift.flatMap((l) => {
                      const technicianId = takers[l.jobId];
                      return technicianId === undefined ? [] : [{ jobId: l.jobId, technicianId }];
                    }),
                  },
                  { onSuccess: onClose },
                )
              }
            >
              {answer.changes.length === 0
                ? 'Enter the absence'
                : `Enter it and move ${answer.changes.length}`}
            </Button>
            <span className="hint">Nothing has changed yet.</span>
          </div>
        </>
      )}
    </section>
  );
}

/** A vehicle on the lift of whoever is away: somebody takes it over there, or it stays open. */
function OnLift({
  lift,
  taker,
  onTake,
}: {
  lift: Schemas['OnLiftView'];
  taker?: number;
  onTake: (technicianId?: number) => void;
}) {
  const id = `take-${lift.jobId}`;
  return (
    <p className="clash-note on-lift">
      <label htmlFor={id}>
        <b className="registration">{lift.registration}</b> is on {lift.technician}’s lift with{' '}
        {formatHours(lift.minutesLeft)} h of its work left.
      </label>{' '}
      {lift.takers.length === 0 ? (
        'Nobody else who knows the work is free: it stays open.'
      ) : (
        <Select
          id={id}
          value={taker ?? 0}
          popupMatchSelectWidth={false}
          onChange={(who) => onTake(who === 0 ? undefined : who)}
          options={[
            { value: 0, label: 'it stays open' },
            ...lift.takers.map((t) => ({ value: t.technicianId, label: `${t.name} takes over` })),
          ]}
        />
      )}
    </p>
  );
}

/** Which technician, bay or tool set the question is about. */
function Which<V extends string | number>({
  id,
  label,
  error,
  at,
  value,
  onChange,
  options,
}: {
  id: string;
  label: string;
  error: unknown;
  at: string;
  value?: V;
  onChange: (v: V) => void;
  options: { value: V; label: string }[];
}) {
  return (
    <Field id={id} label={label} error={error} at={at}>
      <Select
        id={id}
        value={value}
        placeholder="Choose"
        popupMatchSelectWidth={false}
        onChange={onChange}
        options={options}
      />
    </Field>
  );
}

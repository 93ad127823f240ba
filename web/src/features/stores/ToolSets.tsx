import { useQuery } from '@tanstack/react-query';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { Field } from '../../shared/forms';
import { formatDate, formatTime, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { spanWords } from '../board/boardQueries';
import { storesQuery, useAddCopy, useToolCopy, type Stores } from './storesQueries';

type Copy = Schemas['CopyView'];

/** Tool sets: their pieces, what each copy is like and where it is, who wants it when; clashes first. */
export default function ToolSets() {
  const { data: stores, error, refetch } = useQuery(storesQuery);
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!stores) return <p className="hint">Looking into the tool store…</p>;
  const clashes = stores.toolSets.filter((t) => t.clash).length;
  return (
    <>
      <header className="stores-head">
        <h1>Tool sets</h1>
        <span className={clashes > 0 ? 'clash-word' : 'hint'}>
          {clashes === 0
            ? 'No job that is due waits for a set that others have.'
            : `${clashes} stand in the way of jobs that are due within two weeks`}
        </span>
      </header>
      {stores.toolSets.map((t) => (
        <ToolSet key={t.familyCode} set={t} states={stores.states} />
      ))}
    </>
  );
}

function ToolSet({ set, states }: { set: Schemas['ToolSetView']; states: Stores['states'] }) {
  const { desk } = useMe();
  const add = useAddCopy();
  return (
    <article className={set.clash ? 'tool-set clash' : 'tool-set'}>
      <div>
        <h2>{set.family}</h2>
        {set.clash && (
          <p className="clash-word">
            {set.waiting} {set.waiting === 1 ? 'job waits' : 'jobs wait'} for it while others have
            it
          </p>
        )}
        <p className="hint">
          {set.pieces.length === 0
            ? 'No pieces on file.'
            : set.pieces.map((p) => (p.count > 1 ? `${p.count} × ${p.name}` : p.name)).join(', ')}
        </p>
      </div>
      <div>
        {set.copies.map((c) => (
          <CopyRow key={`${c.id}-${c.version}`} copy={c} states={states} />
        ))}
        {desk && (
          <button
            className="link"
            disabled={add.isPending}
            onClick={() => add.mutate(set.familyCode)}
          >
            Another copy came into the house
          </button>
        )}
        <ProblemNote error={add.error} />
      </div>
      <div>
        {set.bookings.length === 0 && <p className="hint">No open job wants it.</p>}
        {set.bookings.map((b) => (
          <p key={b.jobId}>
            <Link className="registration" to={`/board?job=${b.jobId}`}>
              {b.registration}
            </Link>{' '}
            {b.start && b.end
              ? spanWords({ start: b.start, end: b.end }, formatWeekday, formatTime)
              : b.actBy
                ? `waits, act by ${formatDate(b.actBy)}`
                : 'waits'}
          </p>
        ))}
      </div>
    </article>
  );
}

function CopyRow({ copy, states }: { copy: Copy; states: Stores['states'] }) {
  const { desk } = useMe();
  const [open, setOpen] = useState(false);
  const [state, setState] = useState(copy.state);
  const [keptAt, setKeptAt] = useState(copy.keptAt);
  const [note, setNote] = useState(copy.note);
  const change = useToolCopy(copy.id);
  return (
    <>
      <p>
        <b>Copy {copy.number}</b>{' '}
        <span className={copy.usable ? '' : 'late'}>{copy.stateWords}</span>,{' '}
        {copy.with ? `with ${copy.with}` : copy.keptAt}
        {copy.note && `; ${copy.note}`}{' '}
        {desk && (
          <button className="link" aria-expanded={open} onClick={() => setOpen(!open)}>
            Change
          </button>
        )}
      </p>
      {open && (
        <form
          className="sheet-form"
          onSubmit={(e) => {
            e.preventDefault();
            change.mutate({ state, keptAt, note, version: copy.version });
          }}
        >
          <div className="fields">
            <Field id={`copy-${copy.id}`} label="It is">
              <Select
                id={`copy-${copy.id}`}
                value={state}
                popupMatchSelectWidth={false}
                onChange={setState}
                options={states.map((s) => ({ value: s.state, label: s.words }))}
              />
            </Field>
            <Field id={`kept-${copy.id}`} label="Kept at" error={change.error} at="/keptAt">
              <Input
                id={`kept-${copy.id}`}
                value={keptAt}
                onChange={(e) => setKeptAt(e.target.value)}
              />
            </Field>
            <Field id={`note-${copy.id}`} label="Note" error={change.error} at="/note" grow>
              <Input
                id={`note-${copy.id}`}
                value={note}
                onChange={(e) => setNote(e.target.value)}
              />
            </Field>
            <Button htmlType="submit" loading={change.isPending}>
              Keep
            </Button>
          </div>
          <ProblemNote error={change.error} beside={['/keptAt', '/note']} />
        </form>
      )}
    </>
  );
}

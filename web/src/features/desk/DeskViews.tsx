import { useQuery } from '@tanstack/react-query';
import { Button, Input, Modal, Popover } from 'antd';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatDay, formatMoment } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { filterText, movesQuery, useRemoveView, useSaveView, viewsQuery } from './deskQueries';

/** Filters that have a name: opened, kept, removed. */
export function SavedViews() {
  const [open, setOpen] = useState(false);
  const [params, setParams] = useSearchParams();
  const { data: views, error } = useQuery(viewsQuery);
  const [name, setName] = useState('');
  const save = useSaveView(() => setName(''));
  const remove = useRemoveView();
  const now = filterText(params);
  const current = views?.find((v) => v.query === now && now !== '');
  return (
    <Popover
      trigger="click"
      placement="bottomLeft"
      open={open}
      onOpenChange={setOpen}
      content={
        <div className="views">
          {views?.length === 0 && (
            <p className="hint">No view kept yet. Narrow the list, then give it a name.</p>
          )}
          <ul className="plain">
            {views?.map((v) => (
              <li key={v.id}>
                <button
                  className="link"
                  onClick={() => {
                    setParams(new URLSearchParams(v.query));
                    setOpen(false);
                  }}
                >
                  {v.name}
                </button>
                <button
                  className="link quiet"
                  aria-label={`Remove the view ${v.name}`}
                  onClick={() => remove.mutate(v.id)}
                >
                  remove
                </button>
              </li>
            ))}
          </ul>
          <form
            className="inline"
            onSubmit={(e) => {
              e.preventDefault();
              save.mutate({ name, query: now });
            }}
          >
            <Input
              aria-label="Name for the list as it is narrowed now"
              placeholder="name for the list as it is now"
              value={name}
              maxLength={60}
              onChange={(e) => setName(e.target.value)}
            />
            <Button htmlType="submit" loading={save.isPending} disabled={!name.trim() || !now}>
              Keep
            </Button>
          </form>
          {!now && <p className="hint">The list is not narrowed, so there is nothing to keep.</p>}
          <FieldNote error={save.error} at="/name" />
          <ProblemNote error={error ?? remove.error} />
        </div>
      }
    >
      <button className="action quiet-inline">{current ? current.name : 'Views'}</button>
    </Popover>
  );
}

/** "7 vehicles moved. Show.": what the turn of the day or a changed assumption has done. */
export function Moved({ moved }: { moved: Schemas['MovedView'] }) {
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState<string>();
  if (seen === moved.at) return null;
  return (
    <p className="moved" role="status">
      {moved.count} {moved.count === 1 ? 'vehicle' : 'vehicles'} moved {moved.why},{' '}
      {formatMoment(moved.at)}.{' '}
      <button className="link" onClick={() => setOpen(true)}>
        Show
      </button>{' '}
      <button className="link" onClick={() => setSeen(moved.at)}>
        Seen
      </button>
      <Modal
        title="Vehicles that moved"
        open={open}
        onCancel={() => setOpen(false)}
        footer={null}
        width={720}
      >
        <MovesOf />
      </Modal>
    </p>
  );
}

function MovesOf() {
  const { data: moves, error, refetch } = useQuery(movesQuery);
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  return <MovesTable moves={moves ?? []} />;
}

/** Vehicles with their status and act-by date before and after. */
export function MovesTable({ moves }: { moves: Schemas['MoveView'][] }) {
  return (
    <table className="plain moves">
      <thead>
        <tr>
          <th>Vehicle</th>
          <th>Owner</th>
          <th>Before</th>
          <th>After</th>
        </tr>
      </thead>
      <tbody>
        {moves.map((m) => (
          <tr key={m.vehicleId}>
            <td>
              <Link className="registration" to={`/vehicles/${m.vehicleId}`}>
                {m.registration}
              </Link>
            </td>
            <td>{m.ownerName}</td>
            <td>{standing(m.before, m.actByBefore)}</td>
            <td>
              <b>{standing(m.after, m.actByAfter)}</b>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const standing = (status: string, day?: string) =>
  day ? `${status}, ${formatDay(day)} ${day.slice(0, 4)}` : status;

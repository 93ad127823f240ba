import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { formatDate } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { feedsQuery, useMakeFeed, useRevokeFeed, type Board } from './boardQueries';

/** The board or a fleet's promises as a calendar file, or at a private address that can be revoked. */
export function CalendarSheet({ board, onClose }: { board: Board; onClose: () => void }) {
  const { manages } = useMe();
  const [fleetId, setFleet] = useState(0);
  return (
    <section className="calendar-sheet" aria-label="Calendar">
      <div className="fields">
        <div>
          <label htmlFor="calendar-of">What the calendar holds</label>
          <Select
            id="calendar-of"
            value={fleetId}
            popupMatchSelectWidth={false}
            onChange={setFleet}
            options={[
              { value: 0, label: 'the whole board' },
              ...board.fleets.map((f) => ({ value: f.id, label: `${f.name}, promises` })),
            ]}
          />
        </div>
        <a
          className="action"
          href={`/api/board/calendar.ics${fleetId ? `?fleetId=${fleetId}` : ''}`}
          download
        >
          Calendar file
        </a>
        {manages && <Feeds fleetId={fleetId || undefined} />}
        <button className="action quiet" onClick={onClose}>
          Close
        </button>
      </div>
    </section>
  );
}

function Feeds({ fleetId }: { fleetId?: number }) {
  const { data: feeds, error } = useQuery(feedsQuery);
  const make = useMakeFeed();
  const revoke = useRevokeFeed();
  const address = make.data && `${window.location.origin}${make.data.path}`;
  return (
    <div className="grow feeds">
      <Button loading={make.isPending} onClick={() => make.mutate(fleetId)}>
        Make a private address
      </Button>
      {address && (
        <p>
          Shown this once; whoever has it can read the calendar:
          <br />
          <code>{address}</code>{' '}
          <button className="link" onClick={() => void navigator.clipboard?.writeText(address)}>
            Copy
          </button>
        </p>
      )}
      {feeds?.map((f) => (
        <p key={f.id}>
          Address {f.id}: {f.shows}, made by {f.madeBy} on {formatDate(f.madeAt)}{' '}
          <button className="link" disabled={revoke.isPending} onClick={() => revoke.mutate(f.id)}>
            Revoke
          </button>
        </p>
      ))}
      <ProblemNote error={error ?? make.error ?? revoke.error} />
    </div>
  );
}

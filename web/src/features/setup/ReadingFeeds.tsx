import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Checkbox, Input, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { api, data, type Schemas } from '../../api/client';
import { formatMoment } from '../../shared/format';
import { CardForm, faulty, Field } from '../../shared/forms';
import { ProblemNote } from '../../shared/ProblemNote';
import { NumberField } from '../../shared/ui/NumberField';
import { fleetsQuery } from '../desk/deskQueries';

type Feed = Schemas['ReadingFeedView'];

const feedsQuery = queryOptions({
  queryKey: ['setup', 'reading-feeds'],
  queryFn: () => data(api.GET('/api/setup/reading-feeds')),
});

function useFeedChange<V>(send: (values: V) => Promise<Schemas['ReadingFeeds']>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (view) => client.setQueryData(feedsQuery.queryKey, { ...view, key: undefined }),
  });
}

/** Where odometer readings of fleets come from by themselves, and what was not taken. */
export function ReadingFeeds() {
  const { data: view, error, refetch } = useQuery(feedsQuery);
  const [adding, setAdding] = useState(false);
  const make = useFeedChange((body: Schemas['ReadingFeedIn']) =>
    data(api.POST('/api/setup/reading-feeds', { body })),
  );
  if (error) return <ProblemNote error={error} retry={() => refetch()} />;
  if (!view) return <p className="hint loading">Reading the feeds…</p>;
  return (
    <section className="reading-feeds">
      <h2>Odometer feeds</h2>
      <p className="hint">
        Units in a fleet’s vehicles, or a program that has their readings, send them here. Each is
        judged as if somebody had typed it; of one vehicle and day the first counts.
      </p>
      {view.feeds.length === 0 && <p className="muted">None.</p>}
      {view.feeds.map((f) => (
        <OneFeed key={f.id} feed={f} />
      ))}
      {make.data?.key && (
        <div className="address" role="status">
          <Field id="feed-key" label="The feed’s key, shown this once">
            <Input
              id="feed-key"
              readOnly
              value={make.data.key}
              onFocus={(e) => e.target.select()}
            />
          </Field>
          <p className="hint">
            Readings are sent by POST to {window.location.origin}/api/readings with the header
            “Authorization: Bearer” and the key, as{' '}
            <code>{'{"readings": [{"vehicle": "SKR 1 A", "value": 81204, "unit": "km"}]}'}</code>
          </p>
        </div>
      )}
      {adding ? (
        <NewFeed
          error={make.error}
          pending={make.isPending}
          onMake={(body) => make.mutate(body, { onSuccess: () => setAdding(false) })}
          onClose={() => (make.reset(), setAdding(false))}
        />
      ) : (
        <Button onClick={() => setAdding(true)}>Add a feed</Button>
      )}
    </section>
  );
}

function OneFeed({ feed }: { feed: Feed }) {
  const end = useFeedChange((id: number) =>
    data(api.DELETE('/api/setup/reading-feeds/{id}', { params: { path: { id } } })),
  );
  return (
    <div className="reading-feed">
      <b>{feed.name}</b> for {feed.fleetName}
      {feed.standIn && <span className="hint">, stand-in, simulated</span>}
      <span className={feed.silentSince ? 'second late' : 'second'}>
        {feed.lastHeard ? `last heard ${formatMoment(feed.lastHeard)}` : 'not heard yet'}
        {feed.silentSince && `, silent for more than ${feed.silentDays} days`}
      </span>
      {!feed.standIn && (
        <span className="second">files are read from {feed.folder}, CSV with a row of heads</span>
      )}
      {feed.refused.length > 0 && (
        <details>
          <summary>{feed.refused.length} not taken lately</summary>
          <table className="plain">
            <tbody>
              {feed.refused.map((r, i) => (
                <tr key={i}>
                  <td>{formatMoment(r.at)}</td>
                  <td>{r.vehicle}</td>
                  <td>{r.what}</td>
                  <td>{r.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      <Popconfirm
        title="Its key and its folder are no longer looked at. Readings that came stay."
        okText="End the feed"
        cancelText="Keep it"
        onConfirm={() => end.mutate(feed.id)}
      >
        <button type="button" className="action">
          End it…
        </button>
      </Popconfirm>
      <ProblemNote error={end.error} />
    </div>
  );
}

function NewFeed({
  error,
  pending,
  onMake,
  onClose,
}: {
  error: unknown;
  pending: boolean;
  onMake: (body: Schemas['ReadingFeedIn']) => void;
  onClose: () => void;
}) {
  const { data: fleets } = useQuery(fleetsQuery);
  const [fleetId, setFleetId] = useState<number>();
  const [name, setName] = useState('');
  const [silentDays, setSilentDays] = useState<number | undefined>(3);
  const [standIn, setStandIn] = useState(false);
  return (
    <CardForm
      title="A new feed"
      submit="Make it"
      error={error}
      at={['/fleetId', '/name', '/silentDays']}
      pending={pending}
      onSubmit={() => onMake({ fleetId, name, silentDays: silentDays ?? 0, standIn })}
      onClose={onClose}
    >
      <Field id="feed-fleet" label="Fleet" error={error} at="/fleetId">
        <Select
          id="feed-fleet"
          value={fleetId}
          status={faulty(error, '/fleetId')}
          onChange={setFleetId}
          options={fleets?.map((f) => ({ value: f.id, label: f.name }))}
        />
      </Field>
      <Field id="feed-name" label="What sends them" error={error} at="/name">
        <Input
          id="feed-name"
          value={name}
          maxLength={60}
          placeholder="units in the vans"
          status={faulty(error, '/name')}
          onChange={(e) => setName(e.target.value)}
        />
      </Field>
      <Field id="feed-silent" label="Say so when it is silent for" error={error} at="/silentDays">
        <NumberField
          id="feed-silent"
          value={silentDays}
          suffix="days"
          status={faulty(error, '/silentDays')}
          onChange={setSilentDays}
        />
      </Field>
      <Checkbox checked={standIn} onChange={(e) => setStandIn(e.target.checked)}>
        A stand-in for trying out: its readings are made up
      </Checkbox>
    </CardForm>
  );
}

import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { api, data, type Schemas } from '../../api/client';
import { formatDate, vehicleCount } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { ownersQuery } from '../../shared/queries';
import { StandingCell, VehicleCell } from '../../shared/VehicleCells';

const PAGE = 100;
const OWNERS = 200;

/** Everything that a few letters can mean, all of it; without letters the owners by name. */
export default function Find() {
  const me = useMe();
  const [search, setSearch] = useSearchParams();
  const q = search.get('q') ?? '';
  const [typed, setTyped] = useState(q);
  const asked = q.trim();
  const found = useInfiniteQuery({
    queryKey: ['find', 'all', asked],
    enabled: asked !== '',
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/api/find', { params: { query: { q: asked, offset: pageParam, limit: PAGE } } }),
      ),
    getNextPageParam: (last, pages) =>
      pages.length * PAGE < last.total ? pages.length * PAGE : undefined,
  });
  const first = found.data?.pages[0];
  const vehicles = found.data?.pages.flatMap((p) => p.vehicles) ?? [];
  const nothing =
    first && first.total + first.owners.length + first.families.length + first.jobs.length === 0;
  return (
    <div className="page found-page">
      <h1>Find</h1>
      <form
        className="find-form"
        onSubmit={(e) => {
          e.preventDefault();
          setSearch(typed.trim() ? { q: typed.trim() } : {});
        }}
      >
        <label htmlFor="find-all">
          Registration, owner, phone in any spelling, part of a VIN, make, engine or job number
        </label>
        <div className="actions">
          <Input
            id="find-all"
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            allowClear
          />
          <Button type="primary" htmlType="submit">
            Find
          </Button>
        </div>
      </form>
      <ProblemNote error={found.error} />
      {asked === '' && me.desk && <AllOwners />}
      {nothing && (
        <p className="empty">
          Nothing found for “{asked}”. A part of it finds more; spaces, capitals, 0 and O are alike.
        </p>
      )}
      {first && asked !== '' && first.total > 0 && (
        <>
          <h2>
            {vehicleCount(first.total)}
            {vehicles.length < first.total && `, ${vehicles.length} of them here`}, worst first
          </h2>
          <table className="plain">
            <thead>
              <tr>
                <th>Vehicle</th>
                <th>Owner</th>
                <th>How it stands</th>
                <th className="num">Act by</th>
              </tr>
            </thead>
            <tbody>
              {vehicles.map((v) => (
                <tr key={v.vehicleId}>
                  <VehicleCell vehicle={v} />
                  <td>{v.ownerName}</td>
                  <StandingCell status={v.statusCode} words={v.status} />
                  <td className="num">{v.actBy ? formatDate(v.actBy) : ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {found.hasNextPage && (
            <Button onClick={() => void found.fetchNextPage()} loading={found.isFetchingNextPage}>
              {`Show ${Math.min(PAGE, first.total - vehicles.length)} more`}
            </Button>
          )}
        </>
      )}
      {first && first.owners.length > 0 && (
        <>
          <h2>Owners</h2>
          <Owners rows={first.owners} />
        </>
      )}
      {first && first.families.length > 0 && (
        <>
          <h2>Engine families</h2>
          <ul className="plain">
            {first.families.map((f) => (
              <li key={f.code}>
                <Link to={`/engines/${encodeURIComponent(f.code)}`}>
                  {f.code} {f.name}
                </Link>
                , {vehicleCount(f.vehicles)}
              </li>
            ))}
          </ul>
        </>
      )}
      {first && first.jobs.length > 0 && (
        <>
          <h2>Jobs</h2>
          <ul className="plain">
            {first.jobs.map((j) => (
              <li key={j.id}>
                <Link to={`/jobs/${j.id}`}>Job {j.id}</Link>, {j.registration}, {j.makeModel}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

function AllOwners() {
  const { data: list, error } = useQuery(ownersQuery('', OWNERS));
  if (!list) return <ProblemNote error={error} />;
  if (list.total === 0)
    return <p className="empty">No owners on file yet. They come with the vehicles.</p>;
  return (
    <>
      <h2>
        {list.total} {list.total === 1 ? 'owner' : 'owners'}
        {list.rows.length < list.total && `, the first ${list.rows.length}; type a name for others`}
      </h2>
      <Owners rows={list.rows} />
    </>
  );
}

function Owners({ rows }: { rows: Schemas['FoundOwner'][] }) {
  return (
    <table className="plain">
      <thead>
        <tr>
          <th>Owner</th>
          <th>Phone</th>
          <th className="num">Vehicles</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((o) => (
          <tr key={o.id}>
            <td>
              <Link to={`/owners/${o.id}`}>{o.name}</Link>
            </td>
            <td>{o.phone ?? 'not stated'}</td>
            <td className="num">{o.vehicles}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

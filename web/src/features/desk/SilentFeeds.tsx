import { useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';
import { formatMoment } from '../../shared/format';

/** Feeds of readings that have fallen silent: what they used to say is guessed from now on. */
export function SilentFeeds() {
  const { data: silent } = useQuery({
    queryKey: ['silent-feeds'],
    queryFn: () => data(api.GET('/api/silent-feeds')),
    refetchInterval: 600_000,
  });
  return silent?.map((f) => (
    <p key={`${f.fleetId} ${f.name}`} className="warning-note" role="status">
      {f.name}, {f.fleetName}: no readings since {formatMoment(f.since)}.
    </p>
  ));
}

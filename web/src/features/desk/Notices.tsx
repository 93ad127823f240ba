import { useQuery } from '@tanstack/react-query';
import { api, data } from '../../api/client';

/** What somebody who looks after the house should know before it hurts, such as a full disk. */
export function Notices() {
  const { data: notices } = useQuery({
    queryKey: ['notices'],
    queryFn: () => data(api.GET('/api/notices')),
    refetchInterval: 300_000,
  });
  return notices?.map((n) => (
    <p key={n.words} className="warning-note" role="status">
      {n.words}
    </p>
  ));
}

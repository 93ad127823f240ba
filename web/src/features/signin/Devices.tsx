import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, data, type Schemas } from '../../api/client';
import { formatMoment } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';

/** Where somebody is signed in; each can be ended by itself. */
export function Devices({ devices }: { devices: Schemas['DeviceView'][] }) {
  const client = useQueryClient();
  const end = useMutation({
    mutationFn: (key: string) =>
      data(api.DELETE('/api/me/devices/{key}', { params: { path: { key } } })),
    onSuccess: (account) => client.setQueryData(['account'], account),
  });
  const everywhere = useMutation({
    mutationFn: () => data(api.POST('/api/me/sign-out-everywhere', {})),
    onSuccess: () => window.location.assign('/'),
  });
  return (
    <section>
      <h2>Where you are signed in</h2>
      <table className="plain">
        <thead>
          <tr>
            <th>With</th>
            <th>From</th>
            <th>Since</th>
            <th>
              <span className="unseen">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {devices.map((d) => (
            <tr key={d.key}>
              <td>
                {d.kind}
                {d.here && <span className="second">this one</span>}
              </td>
              <td>{d.place}</td>
              <td>{formatMoment(d.since)}</td>
              <td className="num">
                {!d.here && (
                  <button
                    className="link"
                    disabled={end.isPending}
                    onClick={() => end.mutate(d.key)}
                  >
                    Sign it out
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <ProblemNote error={end.error ?? everywhere.error} />
      <div className="actions">
        <Button loading={everywhere.isPending} onClick={() => everywhere.mutate()}>
          Sign out everywhere
        </Button>
      </div>
    </section>
  );
}

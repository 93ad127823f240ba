import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Checkbox, Input, InputNumber } from 'antd';
import { useState } from 'react';
import { api, data, type Schemas } from '../../api/client';
import { formatMoment, formatWhole } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';

type View = Schemas['BackupsView'];

const key = ['backups'];
const megabytes = (bytes: number) => `${formatWhole(Math.max(1, Math.round(bytes / 1e6)))} MB`;

/** When the data are backed up, where to, and what is there. */
export default function Backups() {
  const client = useQueryClient();
  const backups = useQuery({ queryKey: key, queryFn: () => data(api.GET('/api/setup/backups')) });
  const now = useMutation({
    mutationFn: () => data(api.POST('/api/setup/backups')),
    onSuccess: (view) => client.setQueryData(key, view),
  });
  const view = backups.data;
  return (
    <section className="backups">
      <ProblemNote error={backups.error} retry={() => backups.refetch()} />
      {view && (
        <>
          {view.failure && (
            <p className="warning-note" role="alert">
              The last backup by the timetable was not made. {view.failure}
            </p>
          )}
          {view.diskLow && (
            <p className="warning-note" role="alert">
              Only {megabytes(view.diskLeft)} are left on the disk the data lie on. Make room soon.
            </p>
          )}
          <PlanForm key={view.version} view={view} />
          <h2>Made</h2>
          {view.made.length === 0 ? (
            <p className="hint">None yet.</p>
          ) : (
            <table className="plain">
              <thead>
                <tr>
                  <th>When</th>
                  <th>File</th>
                  <th className="num">Size</th>
                </tr>
              </thead>
              <tbody>
                {view.made.map((m) => (
                  <tr key={m.name}>
                    <td>{formatMoment(m.at)}</td>
                    <td>
                      <a href={`/api/setup/backups/${m.name}`} download>
                        {m.name}
                      </a>
                    </td>
                    <td className="num">{megabytes(m.bytes)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          <ProblemNote error={now.error} />
          <div className="actions">
            <Button loading={now.isPending} onClick={() => now.mutate()}>
              Back up now
            </Button>
          </div>
          <p className="hint">
            Each is opened, read through and read back before it counts. To put one back, stop
            Knollfield and run <code>./knollfield restore FILE</code>; what was there is kept beside
            it. A copy on another machine survives this one.
          </p>
        </>
      )}
    </section>
  );
}

function PlanForm({ view }: { view: View }) {
  const client = useQueryClient();
  const [plan, setPlan] = useState({
    enabled: view.enabled,
    hour: view.hour,
    keep: view.keep,
    folder: view.folder,
  });
  const [encrypted, setEncrypted] = useState(view.encrypted);
  const [passphrase, setPassphrase] = useState('');
  const save = useMutation({
    mutationFn: () =>
      data(
        api.PUT('/api/setup/backups', {
          body: {
            ...plan,
            passphrase: encrypted ? passphrase || undefined : '',
            version: view.version,
          },
        }),
      ),
    onSuccess: (next) => client.setQueryData(key, next),
  });
  const fields = ['/hour', '/keep', '/folder', '/passphrase'];
  return (
    <form
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        save.mutate();
      }}
    >
      <h2>Timetable</h2>
      <Checkbox
        checked={plan.enabled}
        onChange={(e) => setPlan({ ...plan, enabled: e.target.checked })}
      >
        Back up every day by itself
      </Checkbox>
      <div className="fields">
        <div>
          <label htmlFor="backup-hour">At (hour of the day)</label>
          <InputNumber
            id="backup-hour"
            value={plan.hour}
            suffix=":00"
            onChange={(hour) => setPlan({ ...plan, hour: hour ?? 0 })}
          />
          <FieldNote error={save.error} at="/hour" />
        </div>
        <div>
          <label htmlFor="backup-keep">Keep the newest</label>
          <InputNumber
            id="backup-keep"
            value={plan.keep}
            onChange={(keep) => setPlan({ ...plan, keep: keep ?? 0 })}
          />
          <FieldNote error={save.error} at="/keep" />
        </div>
        <div className="grow">
          <label htmlFor="backup-folder">Into this folder; empty: beside the data</label>
          <Input
            id="backup-folder"
            value={plan.folder}
            placeholder={view.into}
            onChange={(e) => setPlan({ ...plan, folder: e.target.value })}
          />
          <FieldNote error={save.error} at="/folder" />
          {plan.folder === '' && (
            <span className="hint">
              A disk that breaks takes both; another disk or a share of the network is safer.
            </span>
          )}
        </div>
      </div>
      <div className="fields">
        <div>
          <Checkbox checked={encrypted} onChange={(e) => setEncrypted(e.target.checked)}>
            Encrypt with a passphrase
          </Checkbox>
        </div>
        {encrypted && (
          <div className="grow">
            <label htmlFor="backup-passphrase">
              {view.encrypted ? 'New passphrase; empty: as it was' : 'Passphrase'}
            </label>
            <Input.Password
              id="backup-passphrase"
              autoComplete="new-password"
              value={passphrase}
              onChange={(e) => setPassphrase(e.target.value)}
            />
            <FieldNote error={save.error} at="/passphrase" />
            <span className="hint">
              Nobody can open a backup without it. Keep it on paper, away from here.
            </span>
          </div>
        )}
      </div>
      <ProblemNote error={save.error} beside={fields} />
      {save.isSuccess && <p role="status">Saved.</p>}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={save.isPending}>
          Save
        </Button>
      </div>
    </form>
  );
}

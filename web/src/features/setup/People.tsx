import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Radio, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { fleetsQuery } from '../desk/deskQueries';
import { formatMoment } from '../../shared/format';
import { DAYS } from '../../shared/days';
import {
  hoursQuery,
  peopleQuery,
  personChangesQuery,
  useAddPerson,
  useChangePerson,
  useEndDevice,
  useNoSecondFactor,
  useSignOutEverywhere,
} from './setupQueries';
import { HoursEditor } from './HoursEditor';
import { Leave } from '../../shared/ui/Leave';

type New = Schemas['NewPerson'];
type Person = Schemas['PersonView'];

const ROLES: { value: New['role']; label: string }[] = [
  { value: 'MANAGER', label: 'manager' },
  { value: 'FRONT_DESK', label: 'front desk' },
  { value: 'TECHNICIAN', label: 'technician' },
  { value: 'FLEET_CONTACT', label: 'fleet contact' },
];
const SKILLS: { value: New['skills'][number]; label: string }[] = [
  { value: 'BELT', label: 'belts' },
  { value: 'BELT_IN_OIL', label: 'belts in oil' },
  { value: 'CHAIN', label: 'chains' },
];
const NOBODY: New = {
  signIn: '',
  name: '',
  role: 'TECHNICIAN',
  skills: ['BELT'],
  workingDays: ['MONDAY', 'TUESDAY', 'WEDNESDAY', 'THURSDAY', 'FRIDAY'],
  password: '',
};

/** Who signs in, as what, and when technicians work. */
export default function People() {
  const { data: people, error, refetch } = useQuery(peopleQuery);
  const fleets = useQuery(fleetsQuery);
  const change = useChangePerson();
  const signOut = useSignOutEverywhere();
  const endDevice = useEndDevice();
  const noFactor = useNoSecondFactor();
  const [open, setOpen] = useState<Person | 'new'>();
  const [shown, setShown] = useState<number>();
  return (
    <section>
      <ProblemNote
        error={error ?? change.error ?? signOut.error ?? endDevice.error ?? noFactor.error}
        retry={() => refetch()}
      />
      <table className="plain people">
        <thead>
          <tr>
            <th>Name</th>
            <th>Signs in as</th>
            <th>Role</th>
            <th>Works on</th>
            <th>Days</th>
            <th>Signed in</th>
            <th>
              <span className="unseen">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {people?.map((p) => (
            <tr key={p.id} className={p.active ? '' : 'left-out'}>
              <td>{p.name}</td>
              <td>
                {p.signIn}
                {!p.hasPassword && p.active && (
                  <span className="second">no password yet: give one under Change</span>
                )}
              </td>
              <td>
                {ROLES.find((r) => r.value === p.role)?.label}
                {p.fleetId !== undefined && (
                  <span className="second">
                    {fleets.data?.find((f) => f.id === p.fleetId)?.name}
                  </span>
                )}
              </td>
              <td>
                {SKILLS.filter((s) => p.skills.includes(s.value))
                  .map((s) => s.label)
                  .join(', ')}
              </td>
              <td>
                {DAYS.filter((d) => p.workingDays.includes(d.value))
                  .map((d) => d.label)
                  .join(' ')}
                {p.hours && <span className="second">own hours</span>}
              </td>
              <td>
                {p.devices.length > 0 && (
                  <button
                    className="link"
                    aria-expanded={shown === p.id}
                    onClick={() => setShown(shown === p.id ? undefined : p.id)}
                  >
                    {p.devices.length === 1 ? '1 device' : `${p.devices.length} devices`}
                  </button>
                )}
                {shown === p.id &&
                  p.devices.map((d) => (
                    <span key={d.key} className="second">
                      {d.kind}, {d.place}, since {formatMoment(d.since)}{' '}
                      <button
                        className="link"
                        onClick={() => endDevice.mutate({ id: p.id, key: d.key })}
                      >
                        Sign it out
                      </button>
                    </span>
                  ))}
                {p.secondFactor && (
                  <span className="second">
                    with a second device{' '}
                    <button
                      className="link"
                      title="Where it is lost: signing in asks for the password alone again"
                      onClick={() => noFactor.mutate(p.id)}
                    >
                      Without
                    </button>
                  </span>
                )}
              </td>
              <td className="num">
                {p.active && (
                  <button className="link" onClick={() => setOpen(p)}>
                    Change
                  </button>
                )}{' '}
                {p.active && (
                  <button
                    className="link"
                    title="Ends every session, such as on a tablet that was lost"
                    onClick={() => signOut.mutate(p.id)}
                  >
                    Sign out everywhere
                  </button>
                )}{' '}
                <button
                  className="link"
                  onClick={() =>
                    change.mutate({
                      id: p.id,
                      name: p.name,
                      role: p.role,
                      fleetId: p.fleetId,
                      skills: p.skills,
                      workingDays: p.workingDays,
                      hours: p.hours,
                      active: !p.active,
                      version: p.version,
                    })
                  }
                >
                  {p.active ? 'Switch off' : 'Switch on'}
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {signOut.isSuccess && (
        <p role="status">
          {people?.find((p) => p.id === signOut.variables)?.name} is signed out on every device.
        </p>
      )}
      {open ? (
        <PersonForm
          key={open === 'new' ? 'new' : open.id}
          person={open === 'new' ? undefined : open}
          onDone={() => setOpen(undefined)}
          fleets={fleets.data ?? []}
        />
      ) : (
        <Button onClick={() => setOpen('new')}>Add a person</Button>
      )}
      <Changes />
    </section>
  );
}

/** What was changed of accounts, and by whom. */
function Changes() {
  const changes = useQuery(personChangesQuery);
  return (
    changes.data &&
    changes.data.length > 0 && (
      <>
        <h2>What was changed</h2>
        <table className="plain">
          <thead>
            <tr>
              <th>When</th>
              <th>By</th>
              <th>Of</th>
              <th>Before</th>
              <th>After</th>
            </tr>
          </thead>
          <tbody>
            {changes.data.map((c, i) => (
              <tr key={i}>
                <td>{formatMoment(c.at)}</td>
                <td>{c.by}</td>
                <td>{c.name}</td>
                <td>{c.before}</td>
                <td>{c.after}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </>
    )
  );
}

function PersonForm({
  person,
  onDone,
  fleets,
}: {
  person?: Person;
  onDone: () => void;
  fleets: Schemas['FleetView'][];
}) {
  const [p, setP] = useState<New>(person ? { ...person, password: '' } : NOBODY);
  const add = useAddPerson(onDone);
  const change = useChangePerson(person && { id: person.id, password: p.password }, onDone);
  const sent = person ? change : add;
  const technician = p.role === 'TECHNICIAN';
  const { data: workshopHours } = useQuery(hoursQuery);
  return (
    <form
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        const { password, ...rest } = technician
          ? p
          : { ...p, skills: [], workingDays: [], hours: undefined };
        if (person)
          change.mutate({ ...rest, id: person.id, active: true, version: person.version });
        else add.mutate({ ...rest, password });
      }}
    >
      <h2>{person ? `Change ${person.name}` : 'Add a person'}</h2>
      <div className="fields">
        <div className="grow">
          <label htmlFor="person-name">Name</label>
          <Input
            id="person-name"
            autoFocus
            value={p.name}
            onChange={(e) => setP({ ...p, name: e.target.value })}
          />
          <FieldNote error={sent.error} at="/name" />
        </div>
        <div>
          <label htmlFor="person-sign-in">Signs in as</label>
          <Input
            id="person-sign-in"
            disabled={!!person}
            value={p.signIn}
            onChange={(e) => setP({ ...p, signIn: e.target.value })}
          />
          <FieldNote error={sent.error} at="/signIn" />
        </div>
        <div>
          <label htmlFor="person-password">
            {person ? 'New password; empty: as it was' : 'First password'}
          </label>
          <Input.Password
            id="person-password"
            autoComplete="new-password"
            value={p.password}
            onChange={(e) => setP({ ...p, password: e.target.value })}
          />
          <FieldNote error={sent.error} at="/password" />
        </div>
        <div>
          <label htmlFor="person-role">Role</label>
          <Select
            id="person-role"
            value={p.role}
            options={ROLES}
            onChange={(role) => setP({ ...p, role, fleetId: undefined })}
          />
        </div>
        {p.role === 'FLEET_CONTACT' && (
          <div>
            <label htmlFor="person-fleet">Fleet</label>
            <Select
              id="person-fleet"
              value={p.fleetId}
              options={fleets.map((f) => ({ value: f.id, label: f.name }))}
              onChange={(fleetId) => setP({ ...p, fleetId })}
            />
            <FieldNote error={sent.error} at="/fleetId" />
          </div>
        )}
      </div>
      {technician && (
        <div className="fields">
          <fieldset>
            <legend>Works on</legend>
            <Checkbox.Group
              options={SKILLS}
              value={p.skills}
              onChange={(skills) => setP({ ...p, skills })}
            />
          </fieldset>
          {!p.hours && (
            <fieldset>
              <legend>Days</legend>
              <Checkbox.Group
                options={DAYS}
                value={p.workingDays}
                onChange={(workingDays) => setP({ ...p, workingDays })}
              />
              <FieldNote error={sent.error} at="/workingDays" />
            </fieldset>
          )}
        </div>
      )}
      {technician && (
        <fieldset>
          <legend>Hours</legend>
          <Radio.Group
            value={p.hours ? 'OWN' : 'WORKSHOP'}
            onChange={(e) =>
              setP({
                ...p,
                hours:
                  e.target.value === 'OWN'
                    ? workshopHours?.days.map((d) => ({
                        ...d,
                        spans: p.workingDays.includes(d.day) ? d.spans : [],
                      }))
                    : undefined,
              })
            }
            options={[
              { value: 'WORKSHOP', label: 'as the workshop works, on these days' },
              { value: 'OWN', label: 'own hours' },
            ]}
          />
          {p.hours && (
            <>
              <HoursEditor
                days={p.hours}
                onChange={(hours) => setP({ ...p, hours })}
                error={sent.error}
                at="/hours"
              />
              <FieldNote error={sent.error} at="/hours" />
              <FieldNote error={sent.error} at="/workingDays" />
            </>
          )}
        </fieldset>
      )}
      <ProblemNote
        error={sent.error}
        beside={['/name', '/signIn', '/password', '/fleetId', '/workingDays', '/hours']}
      />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={sent.isPending}>
          {person ? 'Save' : 'Add'}
        </Button>
        <Leave onClick={onDone} />
      </div>
    </form>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { fleetsQuery } from '../desk/deskQueries';
import { peopleQuery, useAddPerson, useChangePerson } from './setupQueries';

type New = Schemas['NewPerson'];

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
const DAYS: { value: New['workingDays'][number]; label: string }[] = [
  { value: 'MONDAY', label: 'Mon' },
  { value: 'TUESDAY', label: 'Tue' },
  { value: 'WEDNESDAY', label: 'Wed' },
  { value: 'THURSDAY', label: 'Thu' },
  { value: 'FRIDAY', label: 'Fri' },
  { value: 'SATURDAY', label: 'Sat' },
  { value: 'SUNDAY', label: 'Sun' },
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
  const [adding, setAdding] = useState(false);
  return (
    <section>
      <ProblemNote error={error ?? change.error} retry={() => refetch()} />
      <table className="plain people">
        <thead>
          <tr>
            <th>Name</th>
            <th>Signs in as</th>
            <th>Role</th>
            <th>Works on</th>
            <th>Days</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {people?.map((p) => (
            <tr key={p.id} className={p.active ? '' : 'left-out'}>
              <td>{p.name}</td>
              <td>{p.signIn}</td>
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
              </td>
              <td className="num">
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
      {adding ? (
        <AddPerson onDone={() => setAdding(false)} fleets={fleets.data ?? []} />
      ) : (
        <Button onClick={() => setAdding(true)}>Add a person</Button>
      )}
    </section>
  );
}

function AddPerson({ onDone, fleets }: { onDone: () => void; fleets: Schemas['FleetView'][] }) {
  const [p, setP] = useState<New>(NOBODY);
  const add = useAddPerson(onDone);
  const technician = p.role === 'TECHNICIAN';
  return (
    <form
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate(technician ? p : { ...p, skills: [], workingDays: [] });
      }}
    >
      <h2>Add a person</h2>
      <div className="fields">
        <div className="grow">
          <label htmlFor="person-name">Name</label>
          <Input
            id="person-name"
            autoFocus
            value={p.name}
            onChange={(e) => setP({ ...p, name: e.target.value })}
          />
          <FieldNote error={add.error} at="/name" />
        </div>
        <div>
          <label htmlFor="person-sign-in">Signs in as</label>
          <Input
            id="person-sign-in"
            value={p.signIn}
            onChange={(e) => setP({ ...p, signIn: e.target.value })}
          />
          <FieldNote error={add.error} at="/signIn" />
        </div>
        <div>
          <label htmlFor="person-password">First password</label>
          <Input.Password
            id="person-password"
            autoComplete="new-password"
            value={p.password}
            onChange={(e) => setP({ ...p, password: e.target.value })}
          />
          <FieldNote error={add.error} at="/password" />
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
            <FieldNote error={add.error} at="/fleetId" />
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
          <fieldset>
            <legend>Days</legend>
            <Checkbox.Group
              options={DAYS}
              value={p.workingDays}
              onChange={(workingDays) => setP({ ...p, workingDays })}
            />
          </fieldset>
        </div>
      )}
      <ProblemNote error={add.error} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={add.isPending}>
          Add
        </Button>
        <button type="button" className="action" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}

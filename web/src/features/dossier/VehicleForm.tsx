import { useQuery } from '@tanstack/react-query';
import { AutoComplete, Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Problem, type Schemas } from '../../api/client';
import { faulty, Field } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { digitsOf, minorPerUnit, vehicleCount } from '../../shared/format';
import { ProblemNote } from '../../shared/ProblemNote';
import { ownersQuery } from '../../shared/queries';
import { choicesQuery } from '../desk/deskQueries';
import { detailsQuery, useStoreVehicle, vinWarningQuery } from './dossierQueries';
import { useUsual } from '../../shared/usual';
import { NumberField } from '../../shared/ui/NumberField';
import { DateField } from '../../shared/ui/DateField';
import { Leave } from '../../shared/ui/Leave';

type Details = Schemas['VehicleDetails'];

const FIELDS = [
  '/registration',
  '/vin',
  '/makeModel',
  '/engine',
  '/ownerName',
  '/ownerPhone',
  '/family',
  '/fleetId',
  '/usageClass',
  '/firstRegistered',
  '/idleHoursPerYear',
  '/valueMinor',
  '/beltDateCode',
];

/** A vehicle is added, or what is on file of it changed. */
export default function VehicleForm() {
  const { id } = useParams();
  const vehicleId = id === undefined ? undefined : Number(id);
  const { data: details, error } = useQuery({
    ...detailsQuery(vehicleId ?? 0),
    enabled: vehicleId !== undefined,
  });
  if (error) return <ProblemNote error={error} />;
  if (vehicleId !== undefined && !details) return <p className="hint loading">Reading the file…</p>;
  return (
    <Form
      id={vehicleId}
      details={
        details ?? {
          registration: '',
          makeModel: '',
          ownerName: '',
          ownerPhone: '',
          usageClass: '',
          cameWithReading: false,
          conditions: [],
          equipment: [],
          heavy: false,
          idleHoursPerYear: 0,
          version: 0,
        }
      }
    />
  );
}

function Form({ id, details }: { id?: number; details: Details }) {
  const me = useMe();
  const minor = minorPerUnit(me.currency);
  const usual = useUsual();
  const navigate = useNavigate();
  const [d, setD] = useState(details);
  const { data: choices } = useQuery(choicesQuery);
  const vin = (d.vin ?? '').replaceAll(/\s/g, '').toUpperCase();
  const { data: warnings } = useQuery(vinWarningQuery(vin));
  const asked = d.ownerName === details.ownerName ? '' : d.ownerName.trim();
  const { data: owners } = useQuery({ ...ownersQuery(asked, 8), enabled: asked.length > 1 });
  const store = useStoreVehicle(id, (stored) => navigate(`/vehicles/${stored}`));
  const set = (part: Partial<Details>) => setD({ ...d, ...part });
  const beside = store.error instanceof Problem && store.error.onlyAt(...FIELDS);
  const text = (
    name: 'registration' | 'vin' | 'makeModel' | 'engine' | 'ownerPhone',
    label: string,
  ) => (
    <Field id={name} label={label} error={store.error} at={`/${name}`}>
      <Input
        id={name}
        className={name === 'registration' || name === 'vin' || name === 'engine' ? 'mono' : ''}
        value={d[name] ?? ''}
        autoFocus={name === 'registration' && id === undefined}
        status={faulty(store.error, `/${name}`)}
        onChange={(e) => set({ [name]: e.target.value })}
      />
    </Field>
  );
  return (
    <form
      className="page vehicle-form"
      onSubmit={(e) => {
        e.preventDefault();
        store.mutate({ ...d, vin: vin || undefined });
      }}
    >
      <h1>{id === undefined ? 'Add a vehicle' : `Details of ${details.registration}`}</h1>
      <div className="two-columns">
        <section className="form">
          <h2>Vehicle</h2>
          {text('registration', 'Registration')}
          {text('makeModel', 'Make and model')}
          {text('engine', 'Engine letters, if known')}
          {text('vin', 'VIN, 17 letters and digits, if known')}
          {vin.length === 17 &&
            warnings?.map((w) => (
              <p className="warning-note" role="status" key={w}>
                {w} It can be kept as it is.
              </p>
            ))}
          <Field id="family" label="Engine family" error={store.error} at="/family">
            <Select
              id="family"
              value={d.family ?? ''}
              onChange={(v) => set({ family: v || undefined })}
              showSearch={{ optionFilterProp: 'label' }}
              options={[
                { value: '', label: 'not on file' },
                ...(choices?.families ?? []).map((c) => ({ value: c.code, label: c.words })),
              ]}
            />
          </Field>
          <Field id="first" label="First registered on" error={store.error} at="/firstRegistered">
            <DateField
              id="first"
              max={me.today}
              status={faulty(store.error, '/firstRegistered')}
              value={d.firstRegistered ?? ''}
              onChange={(d) => set({ firstRegistered: d })}
            />
          </Field>
          <Checkbox
            checked={d.cameWithReading}
            onChange={(e) => set({ cameWithReading: e.target.checked })}
          >
            was not new then: its odometer did not start at zero
          </Checkbox>
          <Field
            id="value"
            label={`Value, ${me.currency}, if known`}
            error={store.error}
            at="/valueMinor"
          >
            <NumberField
              id="value"
              decimals={digitsOf(me.currency)}
              suffix={me.currency}
              value={d.valueMinor === undefined ? undefined : d.valueMinor / minor}
              onChange={(v) =>
                set({ valueMinor: v === undefined ? undefined : Math.round(v * minor) })
              }
            />
          </Field>
          <Checkbox checked={d.heavy} onChange={(e) => set({ heavy: e.target.checked })}>
            needs the heavy lift
          </Checkbox>
        </section>
        <section className="form">
          <h2>Owner</h2>
          <Field id="ownerName" label="Owner" error={store.error} at="/ownerName">
            <AutoComplete
              id="ownerName"
              className="full"
              value={d.ownerName}
              status={faulty(store.error, '/ownerName')}
              // what is typed is the one on file or a new one; what is chosen is that one
              onChange={(ownerName: string) => set({ ownerName, ownerId: details.ownerId })}
              onSelect={(_, o) =>
                set({
                  ownerId: o.owner.id,
                  ownerName: o.owner.name,
                  ownerPhone: o.owner.phone ?? '',
                })
              }
              options={(owners?.rows ?? []).map((owner) => ({
                value: `${owner.name} ${owner.id}`,
                label: `${owner.name}, ${owner.phone ?? 'no phone'}, ${vehicleCount(owner.vehicles)}`,
                owner,
              }))}
            />
          </Field>
          {text('ownerPhone', 'Phone')}
          {d.ownerId !== undefined && d.ownerName === details.ownerName && (
            <p className="hint">
              The phone is the owner's: it changes for all of the owner's vehicles.
            </p>
          )}
          <Field id="fleet" label="Fleet" error={store.error} at="/fleetId">
            <Select
              id="fleet"
              value={d.fleetId ?? 0}
              onChange={(v) => set({ fleetId: v || undefined })}
              options={[
                { value: 0, label: 'none' },
                ...(choices?.fleets ?? []).map((f) => ({ value: f.id, label: f.name })),
              ]}
            />
          </Field>
          <h2>Use</h2>
          <Field id="class" label="Usage class" error={store.error} at="/usageClass">
            <Select
              id="class"
              value={d.usageClass || undefined}
              placeholder="Choose"
              onChange={(v) => set({ usageClass: v })}
              options={(choices?.usageClasses ?? []).map((c) => ({
                value: c.code,
                label: c.words,
              }))}
            />
          </Field>
          <Field id="idle" label="Idling, hours a year" error={store.error} at="/idleHoursPerYear">
            <NumberField
              id="idle"
              unit="h"
              usual={usual('IDLE_HOURS')}
              value={d.idleHoursPerYear}
              onChange={(v) => set({ idleHoursPerYear: v ?? 0 })}
            />
          </Field>
          <fieldset>
            <legend>Hard use</legend>
            <Checkbox.Group
              value={d.conditions}
              onChange={(conditions) => set({ conditions })}
              options={(choices?.conditions ?? []).map((c) => ({
                value: c.code as Details['conditions'][number],
                label: c.words,
              }))}
            />
          </fieldset>
          {(choices?.equipment.length ?? 0) > 0 && (
            <fieldset>
              <legend>Equipment in the way of the job</legend>
              <Checkbox.Group
                value={d.equipment}
                onChange={(equipment) => set({ equipment })}
                options={choices?.equipment ?? []}
              />
            </fieldset>
          )}
          <Field
            id="date-code"
            label="Date code read on the belt, if any"
            error={store.error}
            at="/beltDateCode"
          >
            <DateField
              id="date-code"
              max={me.today}
              value={d.beltDateCode ?? ''}
              onChange={(d) => set({ beltDateCode: d })}
            />
          </Field>
        </section>
      </div>
      {!beside && <ProblemNote error={store.error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={store.isPending}>
          {id === undefined ? 'Add the vehicle' : 'Keep the details'}
        </Button>
        <Leave onClick={() => navigate(-1)} />
      </div>
    </form>
  );
}

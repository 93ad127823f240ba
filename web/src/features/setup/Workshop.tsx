import { useQuery } from '@tanstack/react-query';
import { Button, Input, Radio, Select, message } from 'antd';
import { useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatDate, formatWeekday } from '../../shared/format';
import { Field, faulty } from '../../shared/forms';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { DateField } from '../../shared/ui/DateField';
import { HoursEditor } from './HoursEditor';
import {
  closedDaysQuery,
  houseQuery,
  hoursQuery,
  useAddClosedDays,
  useChangeHours,
  useChangeHouse,
  useReadCalendar,
  useReopen,
} from './setupQueries';
import { Leave } from '../../shared/ui/Leave';

type House = Schemas['HouseView'];
type Opening = Schemas['OpeningView'];

const FIELDS = [
  '/name',
  '/currency',
  '/address',
  '/phone',
  '/email',
  '/taxNumber',
  '/outsideAddress',
  '/zone',
];

/** Currencies with two decimals, in which amounts are kept. */
const CURRENCIES = Intl.supportedValuesOf('currency').filter(
  (c) =>
    new Intl.NumberFormat('en-GB', { style: 'currency', currency: c }).resolvedOptions()
      .maximumFractionDigits === 2,
);
const NAMES = new Intl.DisplayNames('en-GB', { type: 'currency' });
const nameOf = (code: string) => NAMES.of(code) ?? code;

/** Who the workshop is, how it writes figures, and when it works. */
export default function Workshop() {
  const { data: house, error, refetch } = useQuery(houseQuery);
  const { data: hours, error: hoursError } = useQuery(hoursQuery);
  // above the forms, which are made anew with every version
  const [notes, holder] = message.useMessage();
  return (
    <div className="workshop-page">
      {holder}
      <ProblemNote error={error ?? hoursError} retry={() => refetch()} />
      {!house && !error && <p className="hint loading">Reading the workshop…</p>}
      {house && (
        <HouseForm
          key={`house-${house.version}`}
          house={house}
          onKept={() => notes.success('Kept.')}
        />
      )}
      <div>
        {hours && (
          <HoursForm
            key={`hours-${hours.version}`}
            opening={hours}
            onKept={() => notes.success('Kept. The board has these hours now.')}
          />
        )}
        <ClosedDays />
      </div>
    </div>
  );
}

function HouseForm({ house, onKept }: { house: House; onKept: () => void }) {
  const [h, setH] = useState(house);
  const change = useChangeHouse(onKept);
  const text = (
    key: 'name' | 'phone' | 'email' | 'taxNumber' | 'outsideAddress',
    label: string,
    max: number,
  ) => (
    <Field id={`house-${key}`} label={label} error={change.error} at={`/${key}`}>
      <Input
        id={`house-${key}`}
        value={h[key]}
        maxLength={max}
        status={faulty(change.error, `/${key}`)}
        onChange={(e) => setH({ ...h, [key]: e.target.value })}
      />
    </Field>
  );
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(h);
      }}
    >
      <h2>Workshop</h2>
      {text('name', 'Name', 80)}
      <Field
        id="house-address"
        label="Address, as it stands on paper"
        error={change.error}
        at="/address"
      >
        <Input.TextArea
          id="house-address"
          autoSize={{ minRows: 2, maxRows: 6 }}
          maxLength={300}
          value={h.address}
          onChange={(e) => setH({ ...h, address: e.target.value })}
        />
      </Field>
      <div className="pair">
        {text('phone', 'Phone', 40)}
        {text('taxNumber', 'Tax number', 40)}
      </div>
      {text('email', 'E-mail', 120)}
      {text('outsideAddress', 'Address at which people outside reach this server', 200)}
      <p className="hint">
        Such as https://garage.example. Owners answer estimates there on a private page; while it is
        empty, none is offered.
      </p>
      <h2>How figures are written</h2>
      <div className="pair">
        <Field id="house-currency" label="Currency" error={change.error} at="/currency">
          <Select
            id="house-currency"
            value={h.currency}
            showSearch={{ optionFilterProp: 'label' }}
            popupMatchSelectWidth={false}
            onChange={(currency) => setH({ ...h, currency })}
            options={CURRENCIES.map((c) => ({ value: c, label: `${c} ${nameOf(c)}` }))}
          />
        </Field>
        <Field id="house-numbers" label="Numbers">
          <Select
            id="house-numbers"
            value={h.numbers}
            onChange={(numbers) => setH({ ...h, numbers })}
            options={[
              { value: 'COMMA_POINT', label: '64,785.30' },
              { value: 'POINT_COMMA', label: '64.785,30' },
              { value: 'SPACE_COMMA', label: '64 785,30' },
              { value: 'APOSTROPHE_POINT', label: "64'785.30" },
            ]}
          />
        </Field>
      </div>
      {h.currency !== house.currency && (
        <p className="hint">
          Amounts that are on file keep their figures: 90 {house.currency} become 90 {h.currency}.
        </p>
      )}
      <fieldset>
        <legend>Distances</legend>
        <Radio.Group
          value={h.unit}
          onChange={(e) => setH({ ...h, unit: e.target.value as House['unit'] })}
          options={[
            { value: 'KM', label: 'kilometres' },
            { value: 'MILES', label: 'miles' },
          ]}
        />
      </fieldset>
      <Field id="house-zone" label="Time zone" error={change.error} at="/zone">
        <Select
          id="house-zone"
          value={h.zone}
          showSearch={{ optionFilterProp: 'label' }}
          onChange={(zone) => setH({ ...h, zone })}
          options={[
            { value: '', label: 'as the computer has it' },
            ...h.zones.map((z) => ({ value: z, label: z.replaceAll('_', ' ') })),
          ]}
        />
      </Field>
      {house.changedBy !== '' && <p className="hint">Last changed by {house.changedBy}.</p>}
      <ProblemNote error={change.error} beside={FIELDS} />
      <Sends pending={change.isPending} changed={h !== house} onBack={() => setH(house)}>
        Keep the workshop’s details
      </Sends>
    </form>
  );
}

function HoursForm({ opening, onKept }: { opening: Opening; onKept: () => void }) {
  const [days, setDays] = useState(opening.days);
  const change = useChangeHours(onKept);
  return (
    <form
      className="form"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate({ days, version: opening.version });
      }}
    >
      <h2>Working hours</h2>
      <p className="hint">
        Half-hours of the board. Technicians work these hours on their own days, unless they have
        hours of their own.
      </p>
      <HoursEditor days={days} onChange={setDays} error={change.error} at="/days" />
      <ProblemNote
        error={change.error}
        beside={days.flatMap((d, i) => d.spans.map((_, s) => `/days/${i}/spans/${s}`))}
      />
      <Sends
        pending={change.isPending}
        changed={days !== opening.days}
        onBack={() => setDays(opening.days)}
      >
        Keep these hours
      </Sends>
    </form>
  );
}

function Sends({
  pending,
  changed,
  onBack,
  children,
}: {
  pending: boolean;
  changed: boolean;
  onBack: () => void;
  children: string;
}) {
  return (
    <div className="actions">
      <Button type="primary" htmlType="submit" loading={pending} disabled={!changed}>
        {children}
      </Button>
      {changed && (
        <button type="button" className="action" onClick={onBack}>
          As it was
        </button>
      )}
    </div>
  );
}

const spanOf = (c: Schemas['Closed']) =>
  c.from === c.to
    ? `${formatWeekday(c.from)} ${c.from.slice(0, 4)}`
    : `${formatDate(c.from)} to ${formatDate(c.to)}`;

/** Days on which nobody works, typed or from a calendar file. */
function ClosedDays() {
  const { data: closed, error } = useQuery(closedDaysQuery);
  const [from, setFrom] = useState<string>();
  const [to, setTo] = useState<string>();
  const [why, setWhy] = useState('');
  const [undone, setUndone] = useState<Schemas['Closed']>();
  const file = useRef<HTMLInputElement>(null);
  const add = useAddClosedDays(() => {
    setFrom(undefined);
    setTo(undefined);
    setWhy('');
    setUndone(undefined);
  });
  const reopen = useReopen();
  const read = useReadCalendar();
  const fresh = read.data?.filter((d) => !d.known) ?? [];
  return (
    <section className="closed-days">
      <h2>Closed days</h2>
      <ProblemNote error={error ?? reopen.error} />
      {closed?.length === 0 && <p className="muted">None from today on.</p>}
      <ul className="plain">
        {closed?.map((c) => (
          <li key={c.id}>
            <b>{spanOf(c)}</b> {c.why}{' '}
            <button
              className="link"
              aria-label={`Open on ${spanOf(c)} after all`}
              onClick={() => reopen.mutate(c.id, { onSuccess: () => setUndone(c) })}
            >
              Open after all
            </button>
          </li>
        ))}
      </ul>
      {undone && (
        <p role="status">
          Open on {spanOf(undone)}.{' '}
          <button className="link" onClick={() => add.mutate([undone])}>
            Take that back
          </button>
        </p>
      )}
      <form
        className="form closed-form"
        onSubmit={(e) => {
          e.preventDefault();
          if (from) add.mutate([{ from, to, why }]);
        }}
      >
        <div className="fields">
          <Field id="closed-from" label="Closed on" error={add.error} at="/days/0/from">
            <DateField id="closed-from" value={from} onChange={setFrom} />
          </Field>
          <Field
            id="closed-to"
            label="to, where it is more than a day"
            error={add.error}
            at="/days/0/to"
          >
            <DateField id="closed-to" value={to} onChange={setTo} />
          </Field>
          <Field id="closed-why" label="Why" error={add.error} at="/days/0/why" grow>
            <Input
              id="closed-why"
              maxLength={120}
              value={why}
              onChange={(e) => setWhy(e.target.value)}
            />
          </Field>
        </div>
        <ProblemNote
          error={read.data ? undefined : add.error}
          beside={['/days/0/from', '/days/0/to', '/days/0/why']}
        />
        <div className="actions">
          <Button htmlType="submit" disabled={!from} loading={add.isPending}>
            Close it
          </Button>
          <label className="file-button">
            Take in a calendar of holidays (.ics)
            <input
              ref={file}
              id="holidays"
              type="file"
              accept=".ics,text/calendar"
              onChange={async (e) => {
                const chosen = e.target.files?.[0];
                if (chosen) read.mutate(await chosen.text());
                e.target.value = '';
              }}
            />
          </label>
        </div>
      </form>
      <FieldNote error={read.error} at="/file" />
      <ProblemNote error={read.error} beside={['/file']} />
      {read.data && (
        <div className="preview" role="status">
          <p>
            The file has {read.data.length} {read.data.length === 1 ? 'entry' : 'entries'} from
            today on; {read.data.length - fresh.length} of them on file already.
          </p>
          <ul className="plain">
            {fresh.map((d) => (
              <li key={d.from + d.why}>
                <b>{spanOf(d)}</b> {d.why}
              </li>
            ))}
          </ul>
          <ProblemNote error={add.error} />
          <div className="actions">
            {fresh.length > 0 && (
              <Button
                type="primary"
                loading={add.isPending}
                onClick={() => add.mutate(fresh, { onSuccess: () => read.reset() })}
              >
                {`Close on ${fresh.length === 1 ? 'it' : `these ${fresh.length}`}`}
              </Button>
            )}
            <Leave onClick={() => read.reset()} />
          </div>
        </div>
      )}
    </section>
  );
}

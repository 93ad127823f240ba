import { Button, Checkbox, Input, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { minorPerUnit, usualUnit } from '../../shared/format';
import { CardForm, faulty, Field } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { DateField } from '../../shared/ui/DateField';
import { NumberField } from '../../shared/ui/NumberField';
import { FieldNote } from '../../shared/ProblemNote';
import { useNoteBreakdown } from './dossierQueries';
import { OdometerFields } from './OdometerFields';

type New = Schemas['NewBreakdown'];

/** Notes that the drive failed: what let go, when, at which odometer, what it came to. */
export function BreakdownForm({
  v,
  today,
  onClose,
}: {
  v: Schemas['DossierView'];
  today: string;
  onClose: () => void;
}) {
  const { currency } = useMe();
  const items = v.items.filter((i) => i.takesTheDrive);
  const [item, setItem] = useState(items[0]?.code);
  const [date, setDate] = useState(today);
  const [value, setValue] = useState<number>();
  const [unit, setUnit] = useState<New['unit']>(usualUnit());
  const [what, setWhat] = useState('');
  const [cost, setCost] = useState<number>();
  const [declined, setDeclined] = useState(false);
  const note = useNoteBreakdown(v.id, onClose);
  const send = (insist: boolean) => {
    if (value === undefined) return;
    note.mutate({
      item,
      date,
      value,
      unit,
      what,
      costMinor: cost === undefined ? undefined : Math.round(cost * minorPerUnit(currency)),
      declined,
      insist,
    });
  };
  const mayInsist = note.error instanceof Problem && note.error.suggestion === 'insist';
  return (
    <CardForm
      title="It broke down"
      submit="Note the breakdown"
      error={note.error}
      at={['/item', '/date', '/value', '/what', '/costMinor']}
      pending={note.isPending}
      disabled={value === undefined || !date || !what.trim()}
      onSubmit={() => send(false)}
      onClose={onClose}
      extra={mayInsist && <Button onClick={() => send(true)}>Note it all the same</Button>}
    >
      <p className="hint">
        Do not crank it: valves may have met pistons. Unless the drive has been renewed since, the
        vehicle is marked as one that must not run.
      </p>
      <div className="fields">
        {items.length > 0 && (
          <Field id="broke" label="What let go" error={note.error} at="/item" grow>
            <Select
              id="broke"
              value={item}
              onChange={setItem}
              options={items.map((i) => ({ value: i.code, label: i.name }))}
            />
          </Field>
        )}
        <Field id="broke-on" label="On" error={note.error} at="/date">
          <DateField
            id="broke-on"
            max={today}
            status={faulty(note.error, '/date')}
            value={date}
            onChange={(d) => setDate(d ?? '')}
          />
        </Field>
        <OdometerFields
          id="broke-at"
          value={value}
          unit={unit}
          error={note.error}
          onUnit={setUnit}
          onValue={(n) => {
            setValue(n);
            note.reset();
          }}
        />
      </div>
      <FieldNote error={note.error} at="/value" />
      <Field id="broke-what" label="What happened" error={note.error} at="/what">
        <Input
          id="broke-what"
          value={what}
          maxLength={400}
          status={faulty(note.error, '/what')}
          onChange={(e) => setWhat(e.target.value)}
        />
      </Field>
      <div className="fields">
        <Field
          id="broke-cost"
          label={`What it came to, ${currency}`}
          error={note.error}
          at="/costMinor"
          hint="Leave it empty until it is known."
        >
          <NumberField
            id="broke-cost"
            decimals={2}
            value={cost}
            status={faulty(note.error, '/costMinor')}
            onChange={setCost}
          />
        </Field>
      </div>
      <Checkbox checked={declined} onChange={(e) => setDeclined(e.target.checked)}>
        the owner had declined the work
      </Checkbox>
    </CardForm>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Button, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { CardForm, faulty, Field } from '../../shared/forms';
import { FieldNote } from '../../shared/ProblemNote';
import { choicesQuery } from '../desk/deskQueries';
import { useAddReading } from './dossierQueries';
import { OdometerFields } from './OdometerFields';
import { DateField } from '../../shared/ui/DateField';
import { usualUnit } from '../../shared/format';

type New = Schemas['NewReading'];

/** Records what the odometer showed. A value that does not fit is asked about, never lost. */
export function ReadingForm({
  v,
  today,
  onClose,
}: {
  v: Schemas['DossierView'];
  today: string;
  onClose: () => void;
}) {
  const [value, setValue] = useState<number>();
  const [unit, setUnit] = useState<New['unit']>(usualUnit());
  const [date, setDate] = useState(today);
  const [source, setSource] = useState<New['source']>('CUSTOMER');
  const { data: choices } = useQuery(choicesQuery);
  const add = useAddReading(v.id, onClose);
  const send = (insist: boolean) => {
    if (value !== undefined) add.mutate({ value, unit, date, source, insist });
  };
  const mayInsist = add.error instanceof Problem && add.error.suggestion === 'insist';
  return (
    <CardForm
      title="Odometer reading"
      submit="Record it"
      error={add.error}
      at={['/value', '/date']}
      pending={add.isPending}
      disabled={value === undefined}
      onSubmit={() => send(false)}
      onClose={onClose}
      extra={mayInsist && <Button onClick={() => send(true)}>Record it all the same</Button>}
    >
      <div className="fields">
        <OdometerFields
          id="odometer"
          autoFocus
          value={value}
          unit={unit}
          error={add.error}
          onUnit={setUnit}
          onValue={(v) => {
            setValue(v);
            add.reset();
          }}
        />
        <Field id="read-on" label="Read on">
          <DateField
            id="read-on"
            status={faulty(add.error, '/date')}
            value={date}
            onChange={(d) => setDate(d ?? '')}
          />
        </Field>
        <Field id="source" label="Source">
          <Select
            id="source"
            value={source}
            onChange={setSource}
            popupMatchSelectWidth={false}
            options={(choices?.readingSources ?? []).map((c) => ({
              value: c.code as New['source'],
              label: c.words,
            }))}
          />
        </Field>
      </div>
      <FieldNote error={add.error} at="/value" />
      <FieldNote error={add.error} at="/date" />
    </CardForm>
  );
}

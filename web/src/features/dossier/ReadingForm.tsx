import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { useAddReading } from './dossierQueries';

type New = Schemas['NewReading'];

const SOURCES: { value: New['source']; label: string }[] = [
  { value: 'WORKSHOP', label: 'own workshop' },
  { value: 'CUSTOMER', label: 'customer by phone' },
  { value: 'CERTIFICATE', label: 'roadworthiness certificate' },
  { value: 'FLEET_LIST', label: 'fleet list' },
  { value: 'TELEMATICS', label: 'telematics' },
];

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
  const [value, setValue] = useState('');
  const [unit, setUnit] = useState<New['unit']>('KM');
  const [date, setDate] = useState(today);
  const [source, setSource] = useState<New['source']>('CUSTOMER');
  const [local, setLocal] = useState<string>();
  const add = useAddReading(v.id, onClose);
  const send = (insist: boolean) => {
    const number = Number(value.replaceAll(/[\s,]/g, ''));
    if (!/^[\d\s,]+(\.\d)?$/.test(value.trim()) || Number.isNaN(number)) {
      setLocal(`“${value}” is not a number.`);
      return;
    }
    setLocal(undefined);
    add.mutate({ value: number, unit, date, source, insist });
  };
  const problem = add.error instanceof Problem ? add.error : undefined;
  // a reading that is possible in itself, but contradicts the others, may be insisted on
  const objection = problem?.at('/value');
  const mayInsist =
    objection !== undefined && !objection.includes('is not one') && !problem?.at('/date');
  return (
    <form
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        send(false);
      }}
    >
      <h3>Odometer reading</h3>
      <div className="fields">
        <div>
          <label htmlFor="odometer">Odometer</label>
          <Input
            id="odometer"
            autoFocus
            inputMode="numeric"
            value={value}
            status={local || objection ? 'error' : ''}
            onChange={(e) => {
              setValue(e.target.value);
              add.reset();
            }}
          />
        </div>
        <div>
          <label htmlFor="unit">Unit</label>
          <Select
            id="unit"
            value={unit}
            onChange={setUnit}
            options={[
              { value: 'KM', label: 'km' },
              { value: 'MILES', label: 'miles' },
            ]}
          />
        </div>
        <div>
          <label htmlFor="read-on">Read on</label>
          <Input
            id="read-on"
            type="date"
            value={date}
            status={problem?.at('/date') ? 'error' : ''}
            onChange={(e) => setDate(e.target.value)}
          />
        </div>
        <div>
          <label htmlFor="source">Source</label>
          <Select id="source" value={source} onChange={setSource} options={SOURCES} />
        </div>
      </div>
      {local && (
        <div className="field-note" role="alert">
          {local}
        </div>
      )}
      <FieldNote error={add.error} at="/value" />
      <FieldNote error={add.error} at="/date" />
      {!problem?.onlyAt('/value', '/date') && <ProblemNote error={add.error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={add.isPending} disabled={!value}>
          Record it
        </Button>
        {mayInsist && <Button onClick={() => send(true)}>Record it all the same</Button>}
        <button type="button" className="action" onClick={onClose}>
          Leave it
        </button>
      </div>
    </form>
  );
}

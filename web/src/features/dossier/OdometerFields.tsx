import { Select } from 'antd';
import type { Schemas } from '../../api/client';
import { faulty, Field } from '../../shared/forms';
import { NumberField } from '../../shared/ui/NumberField';

type Unit = Schemas['NewReading']['unit'];

/** What an odometer shows and in which unit; a unit typed with the number is taken for it. */
export function OdometerFields({
  id,
  value,
  unit,
  error,
  autoFocus = false,
  onValue,
  onUnit,
}: {
  id: string;
  value?: number;
  unit: Unit;
  error: unknown;
  autoFocus?: boolean;
  onValue: (value?: number) => void;
  onUnit: (unit: Unit) => void;
}) {
  return (
    <>
      <Field id={id} label="Odometer">
        <NumberField
          id={id}
          autoFocus={autoFocus}
          decimals={1}
          value={value}
          status={faulty(error, '/value')}
          onUnit={(u) => onUnit(u === 'mi' ? 'MILES' : 'KM')}
          onChange={onValue}
        />
      </Field>
      <Field id={`${id}-unit`} label="Unit">
        <Select
          id={`${id}-unit`}
          value={unit}
          onChange={onUnit}
          options={[
            { value: 'KM', label: 'km' },
            { value: 'MILES', label: 'miles' },
          ]}
        />
      </Field>
    </>
  );
}

import { useQuery } from '@tanstack/react-query';
import { Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { CardForm, faulty, Field } from '../../shared/forms';
import { choicesQuery } from '../desk/deskQueries';
import { useAddEvidence } from './dossierQueries';
import { DateField } from '../../shared/ui/DateField';

type New = Schemas['NewEvidence'];

/** Notes something found on the vehicle. */
export function EvidenceForm({
  v,
  today,
  onClose,
}: {
  v: Schemas['DossierView'];
  today: string;
  onClose: () => void;
}) {
  const [kind, setKind] = useState<New['kind']>();
  const [found, setFound] = useState(today);
  const [confidence, setConfidence] = useState<NonNullable<New['confidence']>>('SEEN');
  const [item, setItem] = useState('');
  const [note, setNote] = useState('');
  const { data: choices } = useQuery(choicesQuery);
  const add = useAddEvidence(v.id, onClose);
  const chosen = choices?.evidence.find((e) => e.code === kind);
  return (
    <CardForm
      title="Evidence"
      submit="Note it"
      error={add.error}
      at={['/date', '/item']}
      pending={add.isPending}
      disabled={!kind}
      onSubmit={() =>
        kind && add.mutate({ kind, found, confidence, item: item || undefined, note })
      }
      onClose={onClose}
    >
      <Field id="kind" label="What was found" hint={chosen?.advice}>
        <Select
          id="kind"
          autoFocus
          className="full"
          value={kind}
          onChange={setKind}
          options={(choices?.evidence ?? []).map((e) => ({ value: e.code, label: e.words }))}
          placeholder="Choose"
          showSearch={{ optionFilterProp: 'label' }}
        />
      </Field>
      <div className="fields">
        <Field id="found" label="Found on" error={add.error} at="/date">
          <DateField
            id="found"
            max={today}
            status={faulty(add.error, '/date')}
            value={found}
            onChange={(d) => setFound(d ?? '')}
          />
        </Field>
        <Field id="confidence" label="How sure">
          <Select
            id="confidence"
            value={confidence}
            onChange={setConfidence}
            options={(choices?.confidences ?? []).map((c) => ({
              value: c.code as NonNullable<New['confidence']>,
              label: c.words,
            }))}
          />
        </Field>
        <Field id="item" label="On which item" error={add.error} at="/item" grow>
          <Select
            id="item"
            value={item}
            onChange={setItem}
            options={[
              { value: '', label: 'the drive' },
              ...v.items.map((i) => ({ value: i.code, label: i.name })),
            ]}
          />
        </Field>
      </div>
      <Field id="note" label="Note">
        <Input id="note" value={note} maxLength={400} onChange={(e) => setNote(e.target.value)} />
      </Field>
    </CardForm>
  );
}

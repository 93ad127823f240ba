import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { useAddEvidence } from './dossierQueries';

type Kind = Schemas['NewEvidence']['kind'];

const KINDS: { value: Kind; label: string }[] = [
  { value: 'BELT_FAILED', label: 'belt off, teeth missing, cord showing, chain jumped' },
  { value: 'GUIDE_BROKEN', label: 'guide broken or fractured' },
  { value: 'CRACKS', label: 'cracks, glazing or frayed edge' },
  { value: 'OIL_TOP', label: 'oil on the belt, wet from the top' },
  { value: 'OIL_BOTTOM', label: 'oil on the belt, wet at the bottom only' },
  { value: 'COOLANT_TRACE', label: 'coolant trace at the pump' },
  { value: 'WHINE', label: 'whine after a belt job' },
  { value: 'SLAP', label: 'slap or flutter under the cover' },
  { value: 'BEARING', label: 'bearing rumble, tensioner weeping, pointer out' },
  { value: 'SWOLLEN', label: 'belt in oil swollen, debris, low oil pressure' },
  { value: 'CHAIN_RATTLE', label: 'chain rattle at cold start' },
  { value: 'CORRELATION_CODE', label: 'cam and crank correlation code' },
  { value: 'DAMPER_LOOSE', label: 'damper ring loose' },
  { value: 'DAMPER_CRACKED', label: 'damper rubber cracked or mount torn' },
  { value: 'INSPECTED_GOOD', label: 'inspected and good' },
];

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
  const [kind, setKind] = useState<Kind>();
  const [found, setFound] = useState(today);
  const [note, setNote] = useState('');
  const add = useAddEvidence(v.id, onClose);
  return (
    <form
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        if (kind) add.mutate({ kind, found, note });
      }}
    >
      <h3>Evidence</h3>
      <label htmlFor="kind">What was found</label>
      <Select
        id="kind"
        autoFocus
        value={kind}
        onChange={setKind}
        options={KINDS}
        placeholder="Choose"
        showSearch={{ optionFilterProp: 'label' }}
      />
      <div className="fields">
        <div>
          <label htmlFor="found">Found on</label>
          <Input id="found" type="date" value={found} onChange={(e) => setFound(e.target.value)} />
        </div>
        <div className="grow">
          <label htmlFor="note">Note</label>
          <Input id="note" value={note} maxLength={400} onChange={(e) => setNote(e.target.value)} />
        </div>
      </div>
      <FieldNote error={add.error} at="/date" />
      <ProblemNote error={add.error} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={add.isPending} disabled={!kind}>
          Note it
        </Button>
        <button type="button" className="action" onClick={onClose}>
          Leave it
        </button>
      </div>
    </form>
  );
}

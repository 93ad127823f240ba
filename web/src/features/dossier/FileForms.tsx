import { useQuery } from '@tanstack/react-query';
import { Checkbox, Input, Radio, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { CardForm, faulty, Field } from '../../shared/forms';
import { choicesQuery } from '../desk/deskQueries';
import { useAddRenewal, useOwnTiming, useUseState } from './dossierQueries';
import { DateField } from '../../shared/ui/DateField';
import { NumberField } from '../../shared/ui/NumberField';
import { DistanceField } from '../../shared/ui/DistanceField';

interface Props {
  v: Schemas['DossierView'];
  today: string;
  onClose: () => void;
}
type Renewal = Schemas['NewRenewal'];
type Kind = NonNullable<Schemas['OwnTiming']['kind']>;

const GRADES: { value: Renewal['grade']; label: string }[] = [
  { value: 'DOCUMENTED', label: 'invoice, label or service book' },
  { value: 'STATED', label: 'the owner says so' },
  { value: 'ORIGINAL', label: 'still the first part, documented' },
];

/** A renewal done elsewhere or before the workshop kept books; graded by its proof. */
export function RenewalForm({ v, today, onClose }: Props) {
  const [item, setItem] = useState(v.items[0]?.code ?? '');
  const [date, setDate] = useState('');
  const [km, setKm] = useState<number>();
  const [grade, setGrade] = useState<Renewal['grade']>('DOCUMENTED');
  const [part, setPart] = useState('');
  const [proof, setProof] = useState('');
  const [betterPart, setBetterPart] = useState(false);
  const add = useAddRenewal(v.id, onClose);
  return (
    <CardForm
      title="Renewal on record"
      submit="Record it"
      error={add.error}
      at={['/item', '/date', '/km', '/value', '/proof']}
      pending={add.isPending}
      disabled={!item || !date || km === undefined}
      onSubmit={() =>
        add.mutate({
          item,
          date,
          km: km ?? 0,
          grade,
          part,
          proof: grade === 'STATED' ? undefined : proof,
          betterPart,
          countsAsReading: true,
        })
      }
      onClose={onClose}
    >
      <div className="fields">
        <Field id="renewal-item" label="Item" error={add.error} at="/item" grow>
          <Select
            id="renewal-item"
            value={item}
            onChange={setItem}
            options={v.items.map((i) => ({ value: i.code, label: i.name }))}
          />
        </Field>
        <Field id="renewal-date" label="Renewed on" error={add.error} at="/date">
          <DateField
            id="renewal-date"
            max={today}
            status={faulty(add.error, '/date')}
            value={date}
            onChange={(d) => setDate(d ?? '')}
          />
        </Field>
        <Field id="renewal-km" label="At odometer" error={add.error} at="/value">
          <DistanceField
            id="renewal-km"
            value={km}
            status={faulty(add.error, '/value')}
            onChange={setKm}
          />
        </Field>
        <Field id="renewal-grade" label="Proof">
          <Select
            id="renewal-grade"
            value={grade}
            onChange={setGrade}
            options={GRADES}
            popupMatchSelectWidth={false}
          />
        </Field>
        {grade !== 'STATED' && (
          <Field
            id="renewal-proof"
            label="The paper’s number, or who saw it"
            error={add.error}
            at="/proof"
            grow
          >
            <Input
              id="renewal-proof"
              value={proof}
              status={faulty(add.error, '/proof')}
              onChange={(e) => setProof(e.target.value)}
            />
          </Field>
        )}
        <Field id="renewal-part" label="Part fitted, if known" grow>
          <Input id="renewal-part" value={part} onChange={(e) => setPart(e.target.value)} />
        </Field>
      </div>
      <Checkbox checked={betterPart} onChange={(e) => setBetterPart(e.target.checked)}>
        the improved part, where the first one is known to be weak
      </Checkbox>
    </CardForm>
  );
}

/** In use, laid up, sold or scrapped. */
export function StateForm({ v, today, onClose }: Props) {
  const [state, setState] = useState(v.state.kind);
  const [since, setSince] = useState(v.state.since ?? today);
  const { data: choices } = useQuery(choicesQuery);
  const change = useUseState(v.id, onClose);
  return (
    <CardForm
      title="State of the vehicle"
      submit="Keep"
      error={change.error}
      at={['/since']}
      pending={change.isPending}
      onSubmit={() =>
        change.mutate({
          state,
          since: state === 'IN_USE' ? undefined : since,
          version: v.version,
        })
      }
      onClose={onClose}
    >
      <Radio.Group
        aria-label="State"
        value={state}
        onChange={(e) => setState(e.target.value as typeof state)}
        options={(choices?.states ?? []).map((s) => ({ value: s.code, label: s.words }))}
      />
      {state !== 'IN_USE' && (
        <Field
          id="since"
          label="Since"
          error={change.error}
          at="/since"
          hint={
            state === 'LAID_UP'
              ? 'Its distance stands still; its age goes on.'
              : 'It leaves every list; its record stays, and the find box finds it.'
          }
        >
          <DateField id="since" max={today} value={since} onChange={(d) => setSince(d ?? '')} />
        </Field>
      )}
    </CardForm>
  );
}

const KINDS: { value: Kind | ''; label: string }[] = [
  { value: '', label: 'as the workshop' },
  { value: 'CAREFUL', label: 'on its cheapest day, never past the book limit' },
  { value: 'BOOK', label: 'at the book limit' },
  { value: 'EARLY', label: 'early' },
  { value: 'FIXED', label: 'at a limit of its own, where it is smaller' },
];

/** When to act on this one vehicle, and why it differs from the workshop's policy. */
export function TimingForm({ v, onClose }: Props) {
  const own = v.ownTiming;
  const [kind, setKind] = useState<Kind | ''>(own?.kind ?? '');
  const [share, setShare] = useState<number | null>(Math.round(100 * (own?.share ?? 0.9)));
  const [km, setKm] = useState<number | null>(own?.km ?? null);
  const [months, setMonths] = useState<number | null>(own?.months ?? null);
  const [reason, setReason] = useState(own?.reason ?? '');
  const change = useOwnTiming(v.id, onClose);
  return (
    <CardForm
      title="When to act on this vehicle"
      submit="Keep"
      error={change.error}
      at={['/share', '/km', '/months', '/reason']}
      pending={change.isPending}
      onSubmit={() =>
        change.mutate({
          kind: kind || undefined,
          share: (share ?? 0) / 100,
          km: km ?? undefined,
          months: months ?? undefined,
          reason,
          version: v.version,
        })
      }
      onClose={onClose}
    >
      <Radio.Group
        aria-label="When to act"
        value={kind}
        onChange={(e) => setKind(e.target.value as Kind | '')}
        options={KINDS}
      />
      <div className="fields">
        {kind === 'EARLY' && (
          <Field id="own-share" label="Share of each limit, %" error={change.error} at="/share">
            <NumberField
              id="own-share"
              decimals={1}
              value={share ?? undefined}
              onChange={(v) => setShare(v ?? null)}
            />
          </Field>
        )}
        {kind === 'FIXED' && (
          <>
            <Field id="own-km" label="Own distance" error={change.error} at="/km">
              <DistanceField
                id="own-km"
                value={km ?? undefined}
                onChange={(v) => setKm(v ?? null)}
              />
            </Field>
            <Field id="own-months" label="Own age, months" error={change.error} at="/months">
              <NumberField
                id="own-months"
                decimals={0}
                value={months ?? undefined}
                onChange={(v) => setMonths(v ?? null)}
              />
            </Field>
          </>
        )}
      </div>
      {kind !== '' && (
        <Field id="own-reason" label="Why" error={change.error} at="/reason">
          <Input
            id="own-reason"
            value={reason}
            maxLength={200}
            status={faulty(change.error, '/reason')}
            onChange={(e) => setReason(e.target.value)}
          />
        </Field>
      )}
    </CardForm>
  );
}

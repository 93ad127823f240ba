import { Input } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { CardForm, faulty, Field } from '../../shared/forms';
import { useAddCall, useAddDecline, useAddTrip } from './dossierQueries';
import { DateField } from '../../shared/ui/DateField';
import { DistanceField } from '../../shared/ui/DistanceField';

interface Props {
  v: Schemas['DossierView'];
  today: string;
  onClose: () => void;
}

/** What was said on the phone, and when to ask again. */
export function CallForm({ v, onClose }: Props) {
  const [spokeWith, setSpokeWith] = useState(v.ownerName);
  const [note, setNote] = useState('');
  const [askAgainOn, setAskAgainOn] = useState('');
  const add = useAddCall(v.id, onClose);
  return (
    <CardForm
      title={`Call, ${v.ownerPhone}`}
      submit="Note the call"
      error={add.error}
      at={['/spokeWith', '/note', '/askAgainOn']}
      pending={add.isPending}
      onSubmit={() => add.mutate({ spokeWith, note, askAgainOn: askAgainOn || undefined })}
      onClose={onClose}
    >
      <Field id="call-note" label="What was said" error={add.error} at="/note">
        <Input.TextArea
          id="call-note"
          autoFocus
          rows={2}
          maxLength={400}
          value={note}
          status={faulty(add.error, '/note')}
          onChange={(e) => setNote(e.target.value)}
        />
      </Field>
      <div className="fields">
        <Field id="spoke-with" label="Spoken with" error={add.error} at="/spokeWith" grow>
          <Input id="spoke-with" value={spokeWith} onChange={(e) => setSpokeWith(e.target.value)} />
        </Field>
        <Field
          id="ask-again"
          label="Ask again on, if wished"
          error={add.error}
          at="/askAgainOn"
          hint="Until then it leaves the list."
        >
          <DateField id="ask-again" value={askAgainOn} onChange={(d) => setAskAgainOn(d ?? '')} />
        </Field>
      </div>
    </CardForm>
  );
}

/** The owner does not want the work for now; the words in which the risk was told are kept. */
export function DeclineForm({ v, onClose }: Props) {
  const [declinedBy, setDeclinedBy] = useState(v.ownerName);
  const [told, setTold] = useState('');
  const [until, setUntil] = useState('');
  const add = useAddDecline(v.id, onClose);
  return (
    <CardForm
      title="Declined by the owner"
      submit="Note the decline"
      error={add.error}
      at={['/declinedBy', '/told', '/until']}
      pending={add.isPending}
      disabled={!until}
      onSubmit={() => add.mutate({ declinedBy, told, until })}
      onClose={onClose}
    >
      <Field
        id="told"
        label="How the risk was told, in words"
        error={add.error}
        at="/told"
        hint={v.sentence}
      >
        <Input.TextArea
          id="told"
          autoFocus
          rows={2}
          maxLength={400}
          value={told}
          status={faulty(add.error, '/told')}
          onChange={(e) => setTold(e.target.value)}
        />
      </Field>
      <div className="fields">
        <Field id="declined-by" label="Declined by" error={add.error} at="/declinedBy" grow>
          <Input
            id="declined-by"
            value={declinedBy}
            onChange={(e) => setDeclinedBy(e.target.value)}
          />
        </Field>
        <Field id="until" label="Holds until" error={add.error} at="/until">
          <DateField id="until" value={until} onChange={(d) => setUntil(d ?? '')} />
        </Field>
      </div>
    </CardForm>
  );
}

/** A journey that is known beforehand and uses up distance. */
export function TripForm({ v, today, onClose }: Props) {
  const [from, setFrom] = useState(today);
  const [to, setTo] = useState('');
  const [extraKm, setExtraKm] = useState<number>();
  const add = useAddTrip(v.id, onClose);
  return (
    <CardForm
      title="Known trip"
      submit="Add the trip"
      error={add.error}
      at={['/from', '/to', '/extraKm']}
      pending={add.isPending}
      disabled={!to || extraKm === undefined}
      onSubmit={() => add.mutate({ from, to, extraKm: extraKm ?? 0 })}
      onClose={onClose}
    >
      <div className="fields">
        <Field id="trip-from" label="Leaves on" error={add.error} at="/from">
          <DateField id="trip-from" value={from} onChange={(d) => setFrom(d ?? '')} />
        </Field>
        <Field id="trip-to" label="Back on" error={add.error} at="/to">
          <DateField id="trip-to" value={to} onChange={(d) => setTo(d ?? '')} />
        </Field>
        <Field id="trip-km" label="Beyond everyday use" error={add.error} at="/extraKm" grow>
          <DistanceField
            id="trip-km"
            value={extraKm}
            status={faulty(add.error, '/extraKm')}
            onChange={setExtraKm}
          />
        </Field>
      </div>
    </CardForm>
  );
}

import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, data, type Schemas } from '../../api/client';
import { faulty } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { Leave } from '../../shared/ui/Leave';

type Contact = Schemas['FleetContact'];

const PARTS = [
  ['name', 'Name', 120],
  ['role', 'For what', 60],
  ['phone', 'Phone', 40],
  ['email', 'E-mail', 200],
] as const;

const NOBODY: Contact = { name: '', role: '', phone: '', email: '' };

const contactsQuery = (id: number) =>
  queryOptions({
    queryKey: ['fleets', id, 'contacts'],
    queryFn: () => data(api.GET('/api/fleets/{id}/contacts', { params: { path: { id } } })),
  });

/** Who else speaks for a fleet, beside the contact at its head. */
export function Contacts({ fleetId }: { fleetId: number }) {
  const { manages } = useMe();
  const { data: kept } = useQuery(contactsQuery(fleetId));
  const [editing, setEditing] = useState(false);
  if (!kept || (kept.contacts.length === 0 && !manages)) return null;
  if (editing) return <Edit fleetId={fleetId} kept={kept} onDone={() => setEditing(false)} />;
  return (
    <section className="fleet-contacts" aria-label="Who else speaks for the fleet">
      <ul className="plain">
        {kept.contacts.map((c) => (
          <li key={c.name + c.phone}>
            {c.name}
            {c.role && `, ${c.role}`}
            {c.phone && (
              <>
                {', '}
                <a href={`tel:${c.phone.replaceAll(' ', '')}`}>{c.phone}</a>
              </>
            )}
            {c.email && (
              <>
                {', '}
                <a href={`mailto:${c.email}`}>{c.email}</a>
              </>
            )}
          </li>
        ))}
      </ul>
      {manages && (
        <button type="button" className="action" onClick={() => setEditing(true)}>
          {kept.contacts.length === 0
            ? 'Add who else speaks for it'
            : 'Change who else speaks for it'}
        </button>
      )}
    </section>
  );
}

function Edit({
  fleetId,
  kept,
  onDone,
}: {
  fleetId: number;
  kept: Schemas['FleetContacts'];
  onDone: () => void;
}) {
  const client = useQueryClient();
  const [rows, setRows] = useState(kept.contacts.length > 0 ? kept.contacts : [NOBODY]);
  const keep = useMutation({
    mutationFn: (contacts: Contact[]) =>
      data(
        api.PUT('/api/fleets/{id}/contacts', {
          params: { path: { id: fleetId } },
          body: { contacts, version: kept.version },
        }),
      ),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['fleets'] });
      onDone();
    },
  });
  const set = (i: number, part: Partial<Contact>) =>
    setRows(rows.map((r, at) => (at === i ? { ...r, ...part } : r)));
  const beside = rows.flatMap((_, i) => PARTS.map(([key]) => `/contacts/${i}/${key}`));
  return (
    <form
      className="form fleet-contacts"
      onSubmit={(e) => {
        e.preventDefault();
        const filled = rows.filter((r) => PARTS.some(([key]) => r[key].trim() !== ''));
        setRows(filled.length > 0 ? filled : [NOBODY]);
        keep.mutate(filled);
      }}
    >
      <h2>Who else speaks for it</h2>
      {rows.map((r, i) => (
        <div className="fields" key={i}>
          {PARTS.map(([key, label, max]) => (
            <div key={key} className="grow">
              <label htmlFor={`contact-${i}-${key}`}>{label}</label>
              <Input
                id={`contact-${i}-${key}`}
                value={r[key]}
                maxLength={max}
                status={faulty(keep.error, `/contacts/${i}/${key}`)}
                onChange={(e) => set(i, { [key]: e.target.value })}
              />
              <FieldNote error={keep.error} at={`/contacts/${i}/${key}`} />
            </div>
          ))}
          <button
            type="button"
            className="action"
            aria-label={`Take ${r.name || 'this line'} out`}
            onClick={() => setRows(rows.filter((_, at) => at !== i))}
          >
            Take out
          </button>
        </div>
      ))}
      <button type="button" className="action" onClick={() => setRows([...rows, NOBODY])}>
        One more
      </button>
      <ProblemNote error={keep.error} beside={beside} />
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={keep.isPending}>
          Keep them
        </Button>
        <Leave onClick={onDone} />
      </div>
    </form>
  );
}

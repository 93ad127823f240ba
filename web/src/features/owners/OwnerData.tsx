import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { api, data, Problem, type Schemas } from '../../api/client';
import { Field, faulty } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { Leave } from '../../shared/ui/Leave';

/** What an owner may ask for: a copy of all that is kept of them, and that it goes. */
export function OwnerData({ page }: { page: Schemas['OwnerPage'] }) {
  const { manages } = useMe();
  const client = useQueryClient();
  const [asked, setAsked] = useState(false);
  const [name, setName] = useState('');
  const erase = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/owners/{id}/erasure', {
          params: { path: { id: page.owner.id } },
          body: { name, version: page.owner.version },
        }),
      ),
    onSuccess: async () => {
      setAsked(false);
      await client.invalidateQueries();
    },
  });
  const beside = erase.error instanceof Problem && erase.error.onlyAt('/name');
  return (
    <section>
      <h2>What is kept</h2>
      <p>
        <a className="link-like" href={`/api/owners/${page.owner.id}/copy`} download>
          A copy of all of it, for the owner
        </a>
      </p>
      {manages && !asked && (
        <button className="action" onClick={() => setAsked(true)}>
          Erase this owner’s data…
        </button>
      )}
      {erase.isSuccess && <p role="status">Erased. The vehicles and what was done to them stay.</p>}
      {asked && (
        <form
          className="form card-form"
          onSubmit={(e) => {
            e.preventDefault();
            erase.mutate();
          }}
        >
          <p>
            Name, phones, addresses, calls, letters and who answered go for good. What was done to
            the vehicles stays: readings, renewals, signed records. Backups keep it until they are
            replaced.
          </p>
          <Field
            id="erase-name"
            label="The owner’s name, to confirm"
            error={erase.error}
            at="/name"
          >
            <Input
              id="erase-name"
              autoFocus
              value={name}
              status={faulty(erase.error, '/name')}
              onChange={(e) => setName(e.target.value)}
            />
          </Field>
          {!beside && <ProblemNote error={erase.error} />}
          <div className="actions">
            <Button danger htmlType="submit" loading={erase.isPending} disabled={!name}>
              Erase for good
            </Button>
            <Leave onClick={() => setAsked(false)} />
          </div>
        </form>
      )}
    </section>
  );
}

import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Input } from 'antd';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data } from '../../api/client';
import { CardForm, Field } from '../../shared/forms';

/** Opens a signed job again as a job of its own; the first keeps its record. */
export function Rework({ jobId }: { jobId: number }) {
  const navigate = useNavigate();
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const again = useMutation({
    mutationFn: () =>
      data(
        api.POST('/api/jobs/{id}/rework', {
          params: { path: { id: jobId } },
          body: { items: [], reason },
        }),
      ),
    onSuccess: async (made) => {
      await client.invalidateQueries();
      await navigate(`/jobs/${made.id}`);
    },
  });
  if (!open) {
    return (
      <p>
        <button className="action" onClick={() => setOpen(true)}>
          It comes back: open it again
        </button>
      </p>
    );
  }
  return (
    <CardForm
      title="Open it again"
      submit="Start the rework"
      error={again.error}
      at={['/reason']}
      pending={again.isPending}
      disabled={false}
      onSubmit={() => again.mutate()}
      onClose={() => setOpen(false)}
    >
      <p className="hint">
        Job {jobId} keeps its record and its clocks. The rework is a job of its own, with a card
        that proves the timing again; whether new parts went in is said there.
      </p>
      <Field id="rework-reason" label="What is wrong" error={again.error} at="/reason">
        <Input
          id="rework-reason"
          autoFocus
          value={reason}
          maxLength={400}
          onChange={(e) => setReason(e.target.value)}
        />
      </Field>
    </CardForm>
  );
}

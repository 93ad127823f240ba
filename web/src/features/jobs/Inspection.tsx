import { Button } from 'antd';
import { useState } from 'react';
import { Problem, type Schemas } from '../../api/client';
import { formatMoney } from '../../shared/format';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { NumberField } from '../../shared/ui/NumberField';
import { useInspectionTime } from './jobQueries';

/** A job that opens nothing: what is looked at, how long it takes, and what it can come to. */
export function Inspection({ job, editable }: { job: Schemas['JobView']; editable: boolean }) {
  const me = useMe();
  const [minutes, setMinutes] = useState<number | undefined>(job.minutes);
  const save = useInspectionTime(job);
  const shown = save.error instanceof Problem && save.error.onlyAt('/minutes');
  return (
    <div>
      <h2>Inspection, nothing opened</h2>
      <ol className="inspection-list">
        {job.inspection?.map((look) => (
          <li key={look}>{look}</li>
        ))}
      </ol>
      <p className="hint">
        No part is fitted and no clock restarts, but what is found counts at once, and a chain found
        good starts its inspection clock again.
      </p>
      <form
        className="form"
        onSubmit={(e) => {
          e.preventDefault();
          if (minutes !== undefined) save.mutate(minutes);
        }}
      >
        <label htmlFor="inspection-minutes">Time, one technician</label>
        <div className="fields inspection-time">
          <NumberField
            id="inspection-minutes"
            value={minutes}
            onChange={setMinutes}
            unit="min"
            status={save.error ? 'error' : ''}
          />
          {editable && (
            <Button
              htmlType="submit"
              loading={save.isPending}
              disabled={minutes === undefined || minutes === job.minutes}
            >
              Set the time
            </Button>
          )}
        </div>
        <FieldNote error={save.error} at="/minutes" />
        {!shown && <ProblemNote error={save.error} />}
      </form>
      <p>
        {job.minutes} min at {formatMoney(job.labourRateMinor, me.currency)} an hour:{' '}
        <b>{formatMoney(job.labourMinor, me.currency)}</b> before tax
      </p>
    </div>
  );
}

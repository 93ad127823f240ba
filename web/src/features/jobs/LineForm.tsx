import { Button, Checkbox, Input, Radio } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatKm, formatMoney, formatWeekday } from '../../shared/format';
import { useMe } from '../../shared/me';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { scopeOf, useBuild } from './jobQueries';

type Job = Schemas['JobView'];

/** A line in full: which part, who brings it, and the person's word over the rule. */
export function LineForm({
  job,
  line,
  editable,
  onClose,
}: {
  job: Job;
  line: Job['lines'][number];
  editable: boolean;
  onClose: () => void;
}) {
  const { currency } = useMe();
  const build = useBuild(job);
  const scope = scopeOf(job);
  const [reason, setReason] = useState(line.decision?.reason ?? '');
  const [inspection, setInspection] = useState(line.decision?.inspection ?? '');
  const isPurpose = (scope.purpose[0] ?? job.build.drive) === line.code;
  const decide = (on: boolean) =>
    build.mutate(
      {
        decisions: { ...scope.decisions, [line.code]: { in: on, reason, inspection } },
      },
      { onSuccess: onClose },
    );
  const takeBack = () => {
    const rest = { ...scope.decisions };
    delete rest[line.code];
    build.mutate({ decisions: rest }, { onSuccess: onClose });
  };
  const choose = (number: string) =>
    build.mutate({ parts: { ...scope.parts, [line.code]: number } });
  const at = `/decisions/${line.code}`;
  return (
    <div className="line-form">
      {line.offers.length > 0 && (
        <Radio.Group
          aria-label={`Part for ${line.name}`}
          value={line.part}
          disabled={!editable || build.isPending || line.ownerSupplied}
          onChange={(e) => choose(e.target.value as string)}
        >
          {line.offers.map((o) => (
            <Radio key={o.number} value={o.number}>
              <span className="part-number">{o.number}</span> {o.gradeWords},{' '}
              {formatMoney(o.priceMinor, currency)}
              {o.per10000KmMinor !== undefined &&
                `, ${formatMoney(o.per10000KmMinor, currency)} for each ${formatKm(10_000)}`}
              {o.expectedKm !== undefined && ` over ${formatKm(o.expectedKm)}`}
              <span className="hint">
                {' '}
                {o.stock > 0 ? `${o.stock} in stock` : 'none in stock'}, here{' '}
                {formatWeekday(o.here)}
              </span>
              {o.misfits.length > 0 && (
                <span className="late"> Does not fit: {o.misfits.join('; ')}.</span>
              )}
            </Radio>
          ))}
        </Radio.Group>
      )}
      <Checkbox
        checked={line.ownerSupplied}
        disabled={!editable || build.isPending}
        onChange={(e) =>
          build.mutate({
            ownerSupplied: e.target.checked
              ? [...scope.ownerSupplied, line.code]
              : scope.ownerSupplied.filter((c) => c !== line.code),
          })
        }
      >
        The owner brings the part; our warranty covers the work only
      </Checkbox>
      {editable && !isPurpose && line.rule !== 'OFFERED' && !line.decision && (
        <form
          className="overrule"
          onSubmit={(e) => {
            e.preventDefault();
            decide(!line.included);
          }}
        >
          <div className="grow">
            <label htmlFor={`reason-${line.code}`}>
              {line.included
                ? `Leave it all the same, because`
                : `Take it in all the same, because`}
            </label>
            <Input
              id={`reason-${line.code}`}
              value={reason}
              maxLength={200}
              onChange={(e) => setReason(e.target.value)}
            />
            <FieldNote error={build.error} at={`${at}/reason`} />
          </div>
          {line.included && line.reusable && (
            <div className="grow">
              <label htmlFor={`inspection-${line.code}`}>What the inspection found</label>
              <Input
                id={`inspection-${line.code}`}
                value={inspection}
                maxLength={200}
                onChange={(e) => setInspection(e.target.value)}
              />
              <FieldNote error={build.error} at={`${at}/inspection`} />
            </div>
          )}
          <Button htmlType="submit" loading={build.isPending}>
            {line.included ? (line.reusable ? 'Reuse the old part' : 'Leave it') : 'Take it in'}
          </Button>
        </form>
      )}
      {editable && line.decision && (
        <button className="action" onClick={takeBack} disabled={build.isPending}>
          Back to what the rules say
        </button>
      )}
      <FieldNote error={build.error} at={`/parts/${line.code}`} />
      <ProblemNote error={build.error} />
    </div>
  );
}

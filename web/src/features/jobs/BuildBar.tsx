import { Button, Input, Radio, Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { formatDate } from '../../shared/format';
import { amountOf, minorOf } from '../../shared/money';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { useMe } from '../../shared/me';
import { useBuild, useNewestBook } from './jobQueries';
import { DateField } from '../../shared/ui/DateField';

type Job = Schemas['JobView'];
type School = Schemas['SchoolView']['school'];

/** How the job is meant: what it is for, which school, until when money is counted, which variant. */
export function BuildBar({ job, editable }: { job: Job; editable: boolean }) {
  const me = useMe();
  const b = job.build;
  const build = useBuild(job);
  const newest = useNewestBook(job.id);
  const [until, setUntil] = useState(b.keptUntil ?? '');
  const [hire, setHire] = useState(
    b.toolHireMinor === 0 ? '' : amountOf(b.toolHireMinor, me.currency),
  );
  const keepHire = () => {
    const minor = minorOf(hire, me.currency);
    if (Number.isFinite(minor) && minor !== b.toolHireMinor) set({ toolHireMinor: minor });
  };
  const set = (change: Partial<Schemas['ScopeIn']>) => build.mutate(change);
  const off = !editable || build.isPending;
  return (
    <div className="build-bar">
      <div className="fields">
        <div>
          <label htmlFor="purpose">The job is for</label>
          <Select
            id="purpose"
            className="purpose"
            value={b.purpose[0] ?? b.drive}
            disabled={off}
            onChange={(item) => set({ purpose: item === b.drive ? [] : [item] })}
            options={b.purposes.map((p) => ({
              value: p.code,
              label:
                p.code === b.drive
                  ? `the whole ${p.name.toLowerCase()} job`
                  : `${p.name.toLowerCase()} only`,
            }))}
          />
        </div>
        <div>
          <span className="label" id="school-label">
            What else goes in{' '}
            {!b.ownSchool && <span className="hint">(as the workshop has it)</span>}
          </span>
          <Radio.Group
            aria-labelledby="school-label"
            value={b.school}
            disabled={off || b.purpose.length > 0}
            onChange={(e) => set({ school: e.target.value as School })}
            options={b.schools.map((s) => ({ value: s.school, label: s.words }))}
          />
        </div>
      </div>
      <div className="fields">
        <div>
          <label htmlFor="seals">Seals are renewed</label>
          <Select
            id="seals"
            className="seals"
            value={b.seals}
            disabled={off}
            onChange={(seals) => set({ seals })}
            options={[
              { value: 'WHEN_WET', label: 'when wet' },
              { value: 'WHILE_OPEN', label: 'always while open' },
            ]}
          />
        </div>
        <div>
          <label htmlFor="kept">Owner keeps it until</label>
          <DateField
            id="kept"
            min={me.today}
            value={until}
            disabled={off}
            onChange={(d) => setUntil(d ?? '')}
            onDone={() => until !== (b.keptUntil ?? '') && set({ keptUntil: until || undefined })}
          />
          <FieldNote error={build.error} at="/keptUntil" />
        </div>
        <div>
          <label htmlFor="hire">Tool hire</label>
          <Input
            id="hire"
            className="hire"
            value={hire}
            suffix={me.currency}
            placeholder="none"
            disabled={off}
            status={Number.isNaN(minorOf(hire, me.currency)) ? 'error' : ''}
            onChange={(e) => setHire(e.target.value)}
            onBlur={keepHire}
            onPressEnter={keepHire}
          />
          <FieldNote error={build.error} at="/toolHireMinor" />
        </div>
        {b.variants.map((v) => (
          <div key={v.code} className={v.settled ? '' : 'open-variant'}>
            <label htmlFor={`variant-${v.code}`}>
              {v.name} <span className="hint">{v.howToTell}</span>
            </label>
            <Select
              id={`variant-${v.code}`}
              className="variant"
              value={v.settled}
              disabled={off}
              placeholder="Not settled: order both, mark the spare"
              onChange={(choice) =>
                set({
                  variants: {
                    ...Object.fromEntries(
                      b.variants.flatMap((x) => (x.settled ? [[x.code, x.settled]] : [])),
                    ),
                    [v.code]: choice,
                  },
                })
              }
              options={v.choices.map((c) => ({ value: c.code, label: c.name }))}
            />
          </div>
        ))}
      </div>
      <p className="hint">
        {b.until}
        {b.laterOn &&
          ` What is left and falls due before is counted as one later job on ${formatDate(b.laterOn)}.`}
      </p>
      {b.newestBook > b.bookVersion && (
        <p className="warning-note">
          Built on version {b.bookVersion} of the book; there is a version {b.newestBook}.{' '}
          {editable && (
            <Button
              size="small"
              loading={newest.isPending}
              onClick={() => newest.mutate(job.version)}
            >
              Take the newest
            </Button>
          )}
        </p>
      )}
      {b.remarks.map((r) => (
        <p key={r} className="warning-note">
          {r}
        </p>
      ))}
      <ProblemNote error={newest.error} />
    </div>
  );
}

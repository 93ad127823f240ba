import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox, Radio, Select, message } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { digitsOf, formatMoment, minorPerUnit } from '../../shared/format';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { Preview } from './Assumptions';
import { Frontier } from './Frontier';
import { useChangeWorkshop, usePreviewWorkshop, workshopQuery } from './setupQueries';
import { useUsual } from '../../shared/usual';
import { NumberField } from '../../shared/ui/NumberField';
import { faulty } from '../../shared/forms';
import { DistanceField } from '../../shared/ui/DistanceField';

type Workshop = Schemas['WorkshopView'];

/** Policy, risk, rates: each a planning assumption that the manager may change. */
export default function Policy() {
  const { data: workshop, error, refetch } = useQuery(workshopQuery);
  // above the form, which is made anew with every version
  const [notes, holder] = message.useMessage();
  if (error && !workshop) return <ProblemNote error={error} retry={() => refetch()} />;
  return (
    <>
      {holder}
      {workshop && (
        <PolicyForm
          key={workshop.version}
          workshop={workshop}
          onKept={() => notes.success('Kept. Every vehicle has been judged anew.')}
        />
      )}
    </>
  );
}

function PolicyForm({ workshop, onKept }: { workshop: Workshop; onKept: () => void }) {
  const [w, setW] = useState(workshop);
  const share = useUsual()('RATE_SHARE');
  const minor = minorPerUnit(workshop.currency);
  const now = workshop.labourRateMinor / minor;
  const labour = share && now > 0 ? ([now * share[0], now * share[1]] as const) : undefined;
  const change = useChangeWorkshop(onKept);
  const preview = usePreviewWorkshop();
  const set = (part: Partial<Workshop>) => {
    preview.reset();
    setW({ ...w, ...part });
  };
  const number = (
    name: keyof Workshop,
    label: string,
    unit: string,
    scale: number | 'money' = 1,
    hint?: string,
    usual?: readonly [number, number],
  ) => {
    const per = scale === 'money' ? minor : scale;
    return (
      <div className="setting">
        <label htmlFor={name}>{label}</label>
        <NumberField
          id={name}
          decimals={scale === 'money' ? digitsOf(w.currency) : scale === 1 ? 2 : 4}
          usual={usual}
          value={w[name] === undefined ? undefined : Number((Number(w[name]) / per).toFixed(6))}
          status={faulty(change.error, `/${name}`)}
          onChange={(v) =>
            set({
              [name]:
                v === undefined ? undefined : scale === 'money' ? Math.round(v * per) : v * per,
            })
          }
        />
        <span className="hint">{unit}</span>
        {hint && <span className="hint wide-hint">{hint}</span>}
        <FieldNote error={change.error} at={`/${name}`} />
      </div>
    );
  };
  return (
    <form
      className="settings"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(w);
      }}
    >
      <section>
        <h2>When to act</h2>
        <Radio.Group
          aria-label="Policy"
          value={w.policy}
          onChange={(e) => set({ policy: e.target.value as Workshop['policy'] })}
          options={[
            { value: 'CAREFUL', label: 'On the cheapest day, never past the book limit' },
            { value: 'BOOK', label: 'At the book limit' },
            { value: 'EARLY', label: 'Early' },
            { value: 'FIXED', label: 'At our own limit, where it is smaller' },
          ]}
        />
        {w.policy === 'CAREFUL' && (
          <>
            {number(
              'stranding',
              'A stranding is worth, beyond its bills',
              w.currency,
              1,
              'What we would pay so that nobody stands by the road. The dearer, the earlier we act.',
            )}
            {number('visit', 'Renewing on a visit for other work saves', w.currency)}
            {number('visitsPerYear', 'A vehicle comes in for other work', 'times a year')}
          </>
        )}
        {w.policy === 'EARLY' && number('earlyShare', 'Share of each limit', '%', 0.01)}
        {w.policy === 'FIXED' && (
          <div className="setting">
            <label htmlFor="fixedKm">Own distance</label>
            <DistanceField
              id="fixedKm"
              value={w.fixedKm}
              status={faulty(change.error, '/fixedKm')}
              onChange={(fixedKm) => set({ fixedKm })}
            />
            <FieldNote error={change.error} at="/fixedKm" />
          </div>
        )}
        {w.policy === 'FIXED' && number('fixedMonths', 'Own age', 'months')}
        {number(
          'riskInterference',
          'Chance of passing the limit, interference',
          '%',
          0.01,
          'Unknown counts as interference.',
        )}
        {number('riskOther', 'The same, other engines', '%', 0.01)}
        {number('horizonDays', 'Coming means within', 'days')}
        <div className="setting">
          <label htmlFor="unknown">Unknown history</label>
          <Select
            id="unknown"
            value={w.unknownRule}
            onChange={(v) => set({ unknownRule: v })}
            options={[
              { value: 'DUE_NOW', label: 'is due now' },
              { value: 'FROM_FIRST_REGISTRATION', label: 'counts from first registration' },
              {
                value: 'FROM_DATE_CODE',
                label: 'counts from the date code on the belt, else is due now',
              },
            ]}
          />
        </div>
        <Checkbox
          checked={w.statedCounts}
          onChange={(e) => set({ statedCounts: e.target.checked })}
        >
          A renewal the owner only tells of restarts the clocks
        </Checkbox>
      </section>
      <Frontier w={w} onStranding={(stranding) => set({ stranding, policy: 'CAREFUL' })} />
      <section>
        <h2>Rates and costs</h2>
        {number('labourRateMinor', 'Labour', `${w.currency} an hour`, 'money', undefined, labour)}
        {number('recoveryMinor', 'Recovery after a breakdown', w.currency, 'money')}
        {number('dayOffRoadMinor', 'A day off the road', w.currency, 'money')}
        {number('daysOffRoad', 'Days off the road after a failure', 'days')}
        <h2>What goes in</h2>
        <div className="setting">
          <label htmlFor="school">Beside what must</label>
          <Select
            id="school"
            value={w.school}
            onChange={(v) => set({ school: v })}
            options={[
              { value: 'WHAT_PAYS', label: 'what pays' },
              { value: 'EVERYTHING', label: 'everything behind the cover' },
              { value: 'BOOK_MINIMUM', label: 'book minimum with inspection' },
            ]}
          />
        </div>
        <div className="setting">
          <label htmlFor="seals">Seals</label>
          <Select
            id="seals"
            value={w.seals}
            onChange={(v) => set({ seals: v })}
            options={[
              { value: 'WHEN_WET', label: 'when wet' },
              { value: 'WHILE_OPEN', label: 'always while open' },
            ]}
          />
        </div>
      </section>
      <section>
        <h2>Wear</h2>
        {number('shareFailedAtLimits', 'Drives failed when their limits are reached', '%', 0.01)}
        {number(
          'wearShape',
          'Shape of the wear-out',
          '',
          1,
          'Higher: failures bunch closer behind the limit.',
        )}
        <p className="hint">
          All figures here are planning assumptions
          {w.changedBy
            ? `; last changed by ${w.changedBy}, ${formatMoment(w.changedAt)}.`
            : '; nobody has changed them yet.'}
        </p>
        <ProblemNote error={change.error ?? preview.error} />
        <div className="actions">
          <Button
            type="primary"
            htmlType="submit"
            loading={change.isPending}
            disabled={w === workshop}
          >
            Keep these figures
          </Button>
          <Button
            loading={preview.isPending}
            disabled={w === workshop}
            onClick={() => preview.mutate(w)}
          >
            What would it move?
          </Button>
        </div>
        {preview.data && <Preview preview={preview.data} />}
      </section>
    </form>
  );
}

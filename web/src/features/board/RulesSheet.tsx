import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { DAYS } from '../../shared/days';
import { FieldNote, ProblemNote } from '../../shared/ProblemNote';
import { formatWeekday } from '../../shared/format';
import { useFleetRule, useWithdraw, type Board } from './boardQueries';
import { NumberField } from '../../shared/ui/NumberField';

type Weekday = Schemas['FleetRule']['days'][number];

/** Absences in force, and how many of each fleet's vehicles may be off the road, on which days. */
export function RulesSheet({ board, onClose }: { board: Board; onClose: () => void }) {
  const withdraw = useWithdraw();
  return (
    <section className="rules-sheet" aria-label="Absences and caps">
      <div>
        <h2>Away</h2>
        {board.absences.length === 0 && (
          <p className="hint">Nobody and nothing is away. “What if…” enters an absence.</p>
        )}
        {board.absences.map((a) => (
          <p key={a.id}>
            {a.what}, {formatWeekday(a.from)}
            {a.to !== a.from && ` to ${formatWeekday(a.to)}`}
            {a.why && `: ${a.why}`}{' '}
            <button
              className="link"
              disabled={withdraw.isPending}
              onClick={() => withdraw.mutate(a.id)}
            >
              Take it back
            </button>
          </p>
        ))}
        <ProblemNote error={withdraw.error} />
      </div>
      <div className="grow">
        <h2>Fleets: off the road at once, and days they can come</h2>
        {board.fleets.map((f) => (
          <FleetRow key={`${f.id}-${f.version}`} fleet={f} />
        ))}
      </div>
      <button className="action quiet" onClick={onClose}>
        Close
      </button>
    </section>
  );
}

function FleetRow({ fleet }: { fleet: Schemas['FleetRule'] }) {
  const [cap, setCap] = useState<number | null>(fleet.cap);
  const [days, setDays] = useState<Weekday[]>(fleet.days);
  const rule = useFleetRule();
  const touched = cap !== fleet.cap || days.join() !== fleet.days.join();
  return (
    <form
      className="fleet-row"
      onSubmit={(e) => {
        e.preventDefault();
        rule.mutate({ id: fleet.id, cap: cap ?? -1, days, version: fleet.version });
      }}
    >
      <b>{fleet.name}</b>
      <label>
        at most{' '}
        <NumberField
          label={`${fleet.name}: vehicles off the road on one day`}
          value={cap ?? undefined}
          onChange={(v) => setCap(v ?? null)}
        />
      </label>
      <Checkbox.Group
        aria-label={`${fleet.name}: days they can come; none means any`}
        value={days}
        onChange={setDays}
        options={DAYS}
      />
      {touched && (
        <Button size="small" htmlType="submit" loading={rule.isPending}>
          Keep
        </Button>
      )}
      <FieldNote error={rule.error} at="/cap" />
      <ProblemNote error={rule.error} beside={['/cap']} />
    </form>
  );
}

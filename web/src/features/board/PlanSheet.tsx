import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { formatMoney, formatTime, formatWhole } from '../../shared/format';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { useAcceptPlan, useBeginPlan, useStopPlan, type Plan } from './boardQueries';
import { Changes, Compared, ToBeTold } from './Changes';

/** A plan being worked out, then compared with the board as it stands, change by change. */
export function PlanSheet({
  plan,
  onClose,
  onSelect,
}: {
  plan?: Plan;
  onClose: () => void;
  onSelect: (jobId: number) => void;
}) {
  const { currency } = useMe();
  const stop = useStopPlan();
  const again = useBeginPlan();
  const accept = useAcceptPlan();
  const [left, setLeft] = useState<number[]>([]);
  if (!plan) return <p className="sheet-hint">Gathering the board…</p>;
  const taken = plan.changes.map((c) => c.jobId).filter((id) => !left.includes(id));
  const send = (jobIds: number[]) => accept.mutate({ id: plan.id, jobIds }, { onSuccess: onClose });
  return (
    <section className="plan-sheet" aria-label="A plan worked out">
      <div className="job-line">
        <p className="job-name">
          {plan.phase === 'RUNNING'
            ? `Working out a plan, ${formatWhole(plan.done * 100)} % of the time, ${formatWhole(plan.steps)} tries`
            : plan.phase === 'FAILED'
              ? 'The plan could not be worked out; the board is as it was.'
              : plan.changes.length === 0
                ? 'Nothing better was found; the board stays as it is.'
                : `${plan.changes.length} changes against the board as it stands`}
          <span className="hint">
            {' '}
            begun by {plan.by} at {formatTime(plan.began)}
            {plan.stopped && ', stopped'}
          </span>
        </p>
        {plan.phase === 'RUNNING' ? (
          <Button onClick={() => stop.mutate(plan.id)} disabled={plan.stopped}>
            Stop, keep the best
          </Button>
        ) : (
          <>
            <button className="action" onClick={() => again.mutate({ seed: plan.id + 1 })}>
              Work out another
            </button>
            <button className="action quiet" onClick={onClose}>
              Leave the board as it is
            </button>
          </>
        )}
      </div>
      <Compared
        before={plan.before}
        after={plan.best}
        labels={['now', plan.phase === 'RUNNING' ? 'best so far' : 'proposed']}
      />
      {plan.boardChanged && plan.changes.length > 0 && (
        <p className="warning-note">
          The board changed meanwhile. What still fits can be accepted; for the rest work out
          another.
        </p>
      )}
      <ProblemNote error={stop.error ?? again.error ?? accept.error} />
      {plan.phase === 'DONE' && plan.changes.length > 0 && (
        <>
          <ToBeTold changes={plan.changes.filter((c) => taken.includes(c.jobId))} />
          <Changes
            changes={plan.changes}
            onSelect={onSelect}
            tick={(id) => (
              <Checkbox
                aria-label="Take this change"
                checked={!left.includes(id)}
                onChange={(e) =>
                  setLeft(
                    e.target.checked
                      ? left.filter((x) => !together(plan.changes, id).has(x))
                      : plan.changes
                          .map((c) => c.jobId)
                          .filter((x) => left.includes(x) || together(plan.changes, x).has(id)),
                  )
                }
              />
            )}
          />
          <div className="actions">
            <Button
              type="primary"
              loading={accept.isPending}
              disabled={taken.length === 0}
              onClick={() => send(taken)}
            >
              {taken.length === plan.changes.length
                ? `Accept all ${taken.length}`
                : `Accept ${taken.length} of ${plan.changes.length}`}
            </Button>
            <button
              className="action"
              onClick={() => setLeft(left.length > 0 ? [] : plan.changes.map((c) => c.jobId))}
            >
              {left.length > 0 ? 'Tick all' : 'Tick none'}
            </button>
            <span className="hint">
              {formatMoney(plan.before.totalMinor - plan.best.totalMinor, currency)} better in all.
              Promises stay where they are. One step takes all of it back.
            </span>
          </div>
        </>
      )}
    </section>
  );
}

/** A change and those it cannot be made without, as the server names them. */
function together(changes: Plan['changes'], id: number): Set<number> {
  const all = new Set([id]);
  for (const one of all) {
    changes.find((c) => c.jobId === one)?.needs.forEach((n) => all.add(n));
  }
  return all;
}

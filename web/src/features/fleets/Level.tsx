import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { LevelMonths } from '../../drawing/LevelMonths';
import { formatHours, formatMoney, formatMonth, vehicleCount } from '../../shared/format';
import { Field } from '../../shared/forms';
import { useMe } from '../../shared/me';
import { ProblemNote } from '../../shared/ProblemNote';
import { NumberField } from '../../shared/ui/NumberField';
import { StandingCell, VehicleCell } from '../../shared/VehicleCells';
import { levelQuery, useBringForward, type FleetPage } from './fleetQueries';

/** Which vehicles to bring forward so that the months come out level: looked at first, accepted in part. */
export function Level({ fleet }: { fleet: FleetPage }) {
  const me = useMe();
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <button type="button" className="action" onClick={() => setOpen(true)}>
        {me.manages ? 'Level the months…' : 'What would level the months…'}
      </button>
    );
  return <Levelling fleet={fleet} onClose={() => setOpen(false)} />;
}

function Levelling({ fleet, onClose }: { fleet: FleetPage; onClose: () => void }) {
  const me = useMe();
  const [hours, setHours] = useState<number>();
  const [left, setLeft] = useState<number[]>([]);
  const { data: level, error, isFetching } = useQuery(levelQuery(fleet.id, hours));
  const bring = useBringForward(fleet.id, () => setLeft([]));
  const chosen = level?.moves.filter((m) => !left.includes(m.vehicleId)) ?? [];
  return (
    <section className="levelling">
      <h2>Level the months</h2>
      <Field
        id="hours"
        label="Hours of the workshop this fleet may take a month; empty: not counted"
        error={error}
        at="/hours"
      >
        <NumberField id="hours" value={hours} onChange={setHours} unit="h" />
      </Field>
      {!level && !error && <p className="hint loading">Working out who goes sooner…</p>}
      {!level && <ProblemNote error={error} />}
      {level && (
        <div className={isFetching ? 'stale' : undefined}>
          <div className="fleet-words" role="status">
            {level.words.map((w) => (
              <p key={w}>{w}</p>
            ))}
          </div>
          {level.moves.length > 0 && (
            <>
              <div className="sideways">
                <LevelMonths months={level.months} hours={level.hours} />
              </div>
              <div className="sideways">
                <table className="plain">
                  <thead>
                    <tr>
                      {me.manages && (
                        <th>
                          <span className="unseen">Bring forward</span>
                        </th>
                      )}
                      <th>Vehicle</th>
                      <th>How it stands</th>
                      <th className="num">From</th>
                      <th className="num">To</th>
                      <th className="num">Hours</th>
                      <th className="num">Days off</th>
                      <th className="num">Gives away, before tax</th>
                    </tr>
                  </thead>
                  <tbody>
                    {level.moves.map((m) => (
                      <tr key={m.vehicleId}>
                        {me.manages && (
                          <td>
                            <Checkbox
                              aria-label={`Bring ${m.registration} forward`}
                              checked={!left.includes(m.vehicleId)}
                              onChange={(e) =>
                                setLeft(
                                  e.target.checked
                                    ? left.filter((v) => v !== m.vehicleId)
                                    : [...left, m.vehicleId],
                                )
                              }
                            />
                          </td>
                        )}
                        <VehicleCell vehicle={m} />
                        <StandingCell status={m.status} words={m.statusWords} />
                        <td className="num">{formatMonth(m.from)}</td>
                        <td className="num">{formatMonth(m.to)}</td>
                        <td className="num">{formatHours(m.minutes)} h</td>
                        <td className="num">{m.offRoadDays}</td>
                        <td className="num">{formatMoney(m.costMinor, me.currency)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            </>
          )}
        </div>
      )}
      <ProblemNote error={bring.error} />
      <div className="actions">
        {me.manages && level && level.moves.length > 0 && (
          <Button
            type="primary"
            disabled={chosen.length === 0 || isFetching}
            loading={bring.isPending}
            onClick={() =>
              bring.mutate(chosen.map((m) => ({ vehicleId: m.vehicleId, from: m.from, to: m.to })))
            }
          >
            {`Bring ${vehicleCount(chosen.length)} forward, for ${formatMoney(
              chosen.reduce((sum, m) => sum + m.costMinor, 0),
              me.currency,
            )}`}
          </Button>
        )}
        <button type="button" className="action" onClick={onClose}>
          Leave the months as they are
        </button>
      </div>
    </section>
  );
}

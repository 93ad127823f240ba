import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { TurningPath } from '../../drawing/TurningPath';
import { enginesQuery } from '../engines/engineQueries';
import { roundQuery } from '../practice/practiceQueries';
import { teethSum } from './calculatorQueries';
import { short, Sum } from './fields';

/** Turns the drawn loop by teeth and whole turns: where the marks stand, and when paint on the belt returns. */
export function TeethCalculator({ path }: { path?: Schemas['PathView'] }) {
  const { data: engines } = useQuery({ ...enginesQuery, enabled: path === undefined });
  const families = engines?.filter((f) => f.drawn);
  const [picked, setPicked] = useState('');
  const code = picked || families?.[0]?.code || '';
  const { data: round } = useQuery({
    ...roundQuery(code, 0),
    enabled: path === undefined && code !== '',
  });
  const drawn = path ?? round?.path;
  const [teeth, setTeeth] = useState(0);
  const { data: out } = useQuery(
    teethSum(path === undefined && code !== '' ? { family: code, crankTeeth: teeth } : undefined),
  );
  const crank = drawn?.pulleys.find((p) => p.role === 'CRANK')?.teeth ?? 0;
  const by = (n: number) => () => setTeeth((t) => Math.max(0, t + n));
  return (
    <Sum
      title="Marks and teeth"
      drawing={drawn && <TurningPath path={drawn} teeth={teeth} />}
      hint="One tooth out is 360° divided by the teeth of that wheel. Paint on the belt will not line up after two turns; the marks of the wheels must."
      result={
        <>
          <p className="figure">
            {short(crank ? teeth / crank : 0)} <span className="unit">crank turns</span>
          </p>
          {out && (
            <>
              <p>
                {out.allTrue ? 'All marks true.' : 'Not all marks true.'} Paint on the belt stands{' '}
                {out.paintTeethOn} teeth on; it is back after{' '}
                <b>{out.turnsUntilPaintReturns} turns</b>.
              </p>
              <table className="plain">
                <thead>
                  <tr>
                    <th>Wheel</th>
                    <th>turned</th>
                    <th>from its mark</th>
                    <th>a tooth</th>
                  </tr>
                </thead>
                <tbody>
                  {out.wheels.map((w) => (
                    <tr key={w.code}>
                      <td>{w.name}</td>
                      <td>{short(w.degrees, 1)}°</td>
                      <td>{w.teethFromMark} teeth</td>
                      <td>{short(w.toothDegrees, 2)}°</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
        </>
      }
    >
      {path === undefined && (
        <div className="figure-field">
          <label htmlFor="teeth-family">Engine family</label>
          <Select
            id="teeth-family"
            value={code || undefined}
            onChange={(v: string) => {
              setPicked(v);
              setTeeth(0);
            }}
            options={families?.map((f) => ({ value: f.code, label: f.name }))}
          />
        </div>
      )}
      <div className="turn-keys" role="group" aria-label="Turn the crank, running way">
        <button type="button" onClick={by(1)}>
          + tooth
        </button>
        <button type="button" onClick={by(Math.round(crank / 4))}>
          + quarter
        </button>
        <button type="button" onClick={by(crank)}>
          + turn
        </button>
        <button type="button" onClick={by(-1)} disabled={teeth === 0}>
          − tooth
        </button>
        <button type="button" onClick={() => setTeeth(0)} disabled={teeth === 0}>
          to the marks
        </button>
      </div>
      <p className="unit">{teeth} crank teeth, running way</p>
    </Sum>
  );
}

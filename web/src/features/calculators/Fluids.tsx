import { useQuery } from '@tanstack/react-query';
import { clearanceSum, coolantSum } from './calculatorQueries';
import { FigureField, short, Sum, useFigure } from './fields';

const share = (n?: number) => (n === undefined ? undefined : n / 100);

/** What is in the cooling system after part of it was renewed. */
export function CoolantCalculator() {
  const kept = useFigure('2');
  const keptShare = useFigure('30');
  const fresh = useFigure('4');
  const freshShare = useFigure('50');
  const wanted = useFigure('50');
  const ready = [kept, keptShare, fresh, freshShare].every((f) => f.n !== undefined);
  const { data: out, error } = useQuery(
    coolantSum(
      ready
        ? {
            keptLitres: kept.n ?? 0,
            keptShare: share(keptShare.n) ?? 0,
            newLitres: fresh.n ?? 0,
            newShare: share(freshShare.n) ?? 0,
            wanted: share(wanted.n),
          }
        : undefined,
    ),
  );
  const end = out?.share;
  return (
    <Sum
      title="Coolant mix"
      hint="Coolant poisons animals; never open a hot system."
      drawing={
        end !== undefined && (
          <svg
            viewBox="0 0 100 200"
            role="img"
            aria-label={`${Math.round(100 * end)} % concentrate`}
          >
            <rect className="ghost" x="25" y="10" width="50" height="180" />
            <rect className="shape" x="25" y={10 + 180 * (1 - end)} width="50" height={180 * end} />
            <text x="50" y={Math.max(28, 4 + 180 * (1 - end))} textAnchor="middle">
              {Math.round(100 * end)} %
            </text>
          </svg>
        )
      }
      result={
        out &&
        (end === undefined ? (
          <p>Nothing is in it.</p>
        ) : (
          <>
            <p className="figure">
              {short(100 * end, 1)} <span className="unit">% concentrate at the end</span>
            </p>
            {out.concentrateLitres !== undefined && wanted.n !== undefined && (
              <p className={fits(out.concentrateLitres, fresh.n) ? undefined : 'fault'}>
                {fits(out.concentrateLitres, fresh.n)
                  ? `For ${short(wanted.n)} %: ${short(out.concentrateLitres)} L of concentrate and ${short((fresh.n ?? 0) - out.concentrateLitres)} L of water.`
                  : `${short(wanted.n)} % cannot be reached with ${short(fresh.n ?? 0)} L; let more out.`}
              </p>
            )}
          </>
        ))
      }
    >
      <FigureField
        id="c-kept"
        label="Stayed in"
        unit="L"
        figure={kept}
        error={error}
        at="/keptLitres"
      />
      <FigureField
        id="c-kept-share"
        label="with"
        unit="%"
        figure={keptShare}
        error={error}
        at="/keptShare"
      />
      <FigureField
        id="c-new"
        label="Goes in"
        unit="L"
        figure={fresh}
        error={error}
        at="/newLitres"
      />
      <FigureField
        id="c-new-share"
        label="with"
        unit="%"
        figure={freshShare}
        error={error}
        at="/newShare"
      />
      <FigureField
        id="c-wanted"
        label="Wanted at the end"
        unit="%"
        figure={wanted}
        error={error}
        at="/wanted"
      />
    </Sum>
  );
}

const fits = (litres: number, room?: number) => litres >= 0 && litres <= (room ?? 0);

/** A valve clearance set against its limits, and the shim that mends it. */
export function ClearanceCalculator() {
  const measured = useFigure('0.20');
  const low = useFigure('0.152');
  const high = useFigure('0.178');
  const shim = useFigure('2.40');
  const ready = [measured, low, high].every((f) => f.n !== undefined);
  const { data: out, error } = useQuery(
    clearanceSum(
      ready
        ? {
            measuredMm: measured.n ?? 0,
            lowMm: low.n ?? 0,
            highMm: high.n ?? 0,
            shimMm: shim.n,
          }
        : undefined,
    ),
  );
  return (
    <Sum
      title="Valve clearance"
      result={
        out && (
          <>
            <p className={out.good ? 'figure' : 'figure fault'}>
              {out.good
                ? 'In its limits'
                : `${short(Math.abs(out.offByMm), 3)} mm ${out.offByMm > 0 ? 'over' : 'under'}`}
            </p>
            {out.shimMm !== undefined && !out.good && (
              <p>A shim of {short(out.shimMm, 3)} mm brings it to the middle.</p>
            )}
          </>
        )
      }
    >
      <FigureField
        id="v-measured"
        label="Measured, cold"
        unit="mm"
        figure={measured}
        error={error}
        at="/measuredMm"
      />
      <FigureField id="v-low" label="Good from" unit="mm" figure={low} error={error} at="/lowMm" />
      <FigureField id="v-high" label="to" unit="mm" figure={high} error={error} at="/highMm" />
      <FigureField
        id="v-shim"
        label="Shim in it"
        unit="mm"
        figure={shim}
        error={error}
        at="/shimMm"
      />
    </Sum>
  );
}

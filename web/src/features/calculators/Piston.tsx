import { useQuery } from '@tanstack/react-query';
import { pistonSum } from './calculatorQueries';
import { FigureField, short, Sum, useFigure } from './fields';

/** How far a piston stands below its top, drawn with its crank. */
export function PistonCalculator() {
  const r = useFigure('43');
  const rod = useFigure('137');
  const angle = useFigure('90');
  const ready = [r, rod, angle].every((f) => f.n !== undefined);
  const { data: out, error } = useQuery(
    pistonSum(ready ? { throwMm: r.n ?? 0, rodMm: rod.n ?? 0, degrees: angle.n ?? 0 } : undefined),
  );
  return (
    <Sum
      title="Piston position"
      hint="Slider and crank: x = r(1 − cos θ) + l − √(l² − r² sin² θ). Which position is safe stands in the engine’s book."
      drawing={
        out &&
        r.n !== undefined &&
        rod.n !== undefined && (
          <CrankDrawing r={r.n} rod={rod.n} degrees={angle.n ?? 0} travel={out.travelMm} />
        )
      }
      result={
        out && (
          <>
            <p className="figure">
              {short(out.travelMm, 2)} <span className="unit">mm below the top</span>
            </p>
            <p>of {short(out.strokeMm)} mm stroke</p>
          </>
        )
      }
    >
      <FigureField
        id="p-throw"
        label="Half the stroke"
        unit="mm"
        figure={r}
        error={error}
        at="/throwMm"
      />
      <FigureField
        id="p-rod"
        label="Rod, between centres"
        unit="mm"
        figure={rod}
        error={error}
        at="/rodMm"
      />
      <FigureField
        id="p-angle"
        label="Crank after top"
        unit="°"
        figure={angle}
        error={error}
        at="/degrees"
      />
    </Sum>
  );
}

function CrankDrawing({
  r,
  rod,
  degrees,
  travel,
}: {
  r: number;
  rod: number;
  degrees: number;
  travel: number;
}) {
  const scale = 150 / (2 * r + rod);
  const a = (degrees * Math.PI) / 180;
  const pin = { x: r * scale * Math.sin(a), y: -r * scale * Math.cos(a) };
  const top = -(r + rod) * scale;
  const piston = top + travel * scale;
  return (
    <svg
      viewBox="-70 -190 140 260"
      role="img"
      aria-label={`Piston ${travel.toFixed(1)} mm below its top`}
    >
      <path
        className="ghost"
        d={`M-34 ${top - 24}V${top + 2 * r * scale + 20}M34 ${top - 24}V${top + 2 * r * scale + 20}`}
      />
      <path className="arc" d={`M-40 ${top}H40`} />
      <rect className="shape" x="-32" y={piston - 18} width="64" height="32" />
      <path className="hand" d={`M0 ${piston}L${pin.x} ${pin.y}L0 0`} />
      <circle className="ghost" r={r * scale} />
      <circle className="shape" cx={pin.x} cy={pin.y} r="6" />
      <circle className="shape" r="4" />
    </svg>
  );
}

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { tensionSum } from './calculatorQueries';
import { FigureField, Pick, short, Sum, useFigure } from './fields';

type From = 'hertz' | 'newtons';

/** Tension from frequency and back; and what a twist shows. */
export function TensionCalculator() {
  const mass = useFigure('0.16');
  const length = useFigure('0.12');
  const [from, setFrom] = useState<From>('hertz');
  const hertz = useFigure('85');
  const newtons = useFigure('67');
  const given = from === 'hertz' ? hertz : newtons;
  const ready = mass.n !== undefined && length.n !== undefined && given.n !== undefined;
  const { data: out, error } = useQuery(
    tensionSum(
      ready
        ? { kilogramsPerMetre: mass.n ?? 0, metres: length.n ?? 0, [from]: given.n }
        : undefined,
    ),
  );
  return (
    <Sum
      title="Belt tension"
      hint="T = 4·m·L²·f², engine cold. By twist: the longest free run turns about 90° between finger and thumb. A belt is stiffer than a string: compare the frequency with the book, not the tension."
      drawing={
        <svg viewBox="0 0 240 90" role="img" aria-label="A free run swinging between two wheels">
          <circle className="ghost" cx="30" cy="50" r="24" />
          <circle className="ghost" cx="210" cy="50" r="24" />
          <path className="hand" d="M30 26H210" />
          <path className="arc" d="M30 26Q120 2 210 26" />
          <path className="arc" d="M30 26Q120 50 210 26" />
          <text x="120" y="80" textAnchor="middle">
            {length.text} m
          </text>
        </svg>
      }
      result={
        out && (
          <>
            <p className="figure">
              {from === 'hertz' ? short(out.newtons, 1) : short(out.hertz, 1)}{' '}
              <span className="unit">{from === 'hertz' ? 'N' : 'Hz'}</span>
            </p>
            <p>
              {short(out.hertz, 1)} Hz and {short(out.newtons, 1)} N belong together.
            </p>
          </>
        )
      }
    >
      <FigureField
        id="t-mass"
        label="Mass of the belt"
        unit="kg/m"
        figure={mass}
        error={error}
        at="/kilogramsPerMetre"
      />
      <FigureField
        id="t-length"
        label="Free length"
        unit="m"
        figure={length}
        error={error}
        at="/metres"
      />
      <Pick
        label="What is known"
        value={from}
        options={[
          { value: 'hertz', label: 'frequency' },
          { value: 'newtons', label: 'tension' },
        ]}
        onChange={setFrom}
      />
      {from === 'hertz' ? (
        <FigureField
          id="t-hertz"
          label="Frequency"
          unit="Hz"
          figure={hertz}
          error={error}
          at="/hertz"
        />
      ) : (
        <FigureField
          id="t-newtons"
          label="Tension"
          unit="N"
          figure={newtons}
          error={error}
          at="/newtons"
        />
      )}
    </Sum>
  );
}

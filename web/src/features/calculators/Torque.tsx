import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { torqueSum, wrenchSum } from './calculatorQueries';
import { FigureField, Pick, short, Sum, useFigure } from './fields';

type Unit = Schemas['TorqueIn']['unit'];

const UNITS: { value: Unit; label: string }[] = [
  { value: 'NEWTON_METRE', label: 'N·m' },
  { value: 'POUND_FOOT', label: 'lb·ft' },
  { value: 'POUND_INCH', label: 'lb·in' },
];
const symbol = (u: Unit) => UNITS.find((x) => x.value === u)?.label ?? '';

/** A torque in every unit, set against a book value, and its angle on a hexagon. */
export function TorqueCalculator() {
  const value = useFigure('53');
  const book = useFigure('');
  const angle = useFigure('90');
  const [unit, setUnit] = useState<Unit>('POUND_INCH');
  const [bookUnit, setBookUnit] = useState<Unit>('NEWTON_METRE');
  const { data: out, error } = useQuery(
    torqueSum(
      value.n === undefined
        ? undefined
        : {
            value: value.n,
            unit,
            bookValue: book.n,
            bookUnit: book.n === undefined ? undefined : bookUnit,
            angleDegrees: angle.n === undefined ? undefined : Math.round(angle.n),
          },
    ),
  );
  return (
    <Sum
      title="Torque, units and angle"
      drawing={<Hexagon degrees={angle.n ?? 0} />}
      result={
        out && (
          <>
            <p className="figure">
              {short(out.newtonMetres)} <span className="unit">N·m</span>
            </p>
            <p>
              {short(out.poundFeet)} lb·ft, {short(out.poundInches, 1)} lb·in
            </p>
            {out.inRange !== undefined && (
              <p className={out.inRange ? undefined : 'fault'}>
                {out.inRange ? 'In range' : 'Out of range'}: good from {short(out.lowNm ?? 0)} to{' '}
                {short(out.highNm ?? 0)} N·m.
                {out.guard && ` Was ${symbol(out.guard)} meant?`}
              </p>
            )}
            {out.angleWords && (
              <p>
                {angle.n}° is {out.angleWords}.
              </p>
            )}
          </>
        )
      }
    >
      <FigureField
        id="torque-value"
        label="Torque"
        unit={symbol(unit)}
        figure={value}
        error={error}
        at="/value"
      />
      <Pick label="Unit" value={unit} options={UNITS} onChange={setUnit} />
      <FigureField
        id="torque-book"
        label="Book value, to compare"
        unit={symbol(bookUnit)}
        figure={book}
        error={error}
        at="/bookValue"
      />
      <Pick label="Unit of the book" value={bookUnit} options={UNITS} onChange={setBookUnit} />
      <FigureField
        id="torque-angle"
        label="Then turn by"
        unit="°"
        figure={angle}
        error={error}
        at="/angleDegrees"
      />
    </Sum>
  );
}

/** A bolt head with the angle marked on it. */
function Hexagon({ degrees }: { degrees: number }) {
  const r = 62;
  const at = (a: number, radius: number) => {
    const rad = ((a - 90) * Math.PI) / 180;
    return `${(radius * Math.cos(rad)).toFixed(1)} ${(radius * Math.sin(rad)).toFixed(1)}`;
  };
  const turn = Math.min(Math.max(degrees, 0), 359.9);
  return (
    <svg
      viewBox="-110 -100 220 200"
      role="img"
      aria-label={`A hexagon turned by ${degrees} degrees; one flat is 60 degrees`}
    >
      <path
        className="shape"
        d={`M${[0, 60, 120, 180, 240, 300].map((a) => at(a + turn, r)).join('L')}Z`}
      />
      <path
        className="ghost"
        d={`M${[0, 60, 120, 180, 240, 300].map((a) => at(a, r)).join('L')}Z`}
      />
      <path className="arc" d={`M${at(0, 84)}A84 84 0 ${turn > 180 ? 1 : 0} 1 ${at(turn, 84)}`} />
      <path className="hand" d={`M0 0L${at(turn, 84)}`} />
      <text x="0" y="40" textAnchor="middle">
        {short(degrees)}°
      </text>
    </svg>
  );
}

/** Whether a wrench suits a torque, and what to set with a crowfoot. */
export function WrenchCalculator() {
  const torque = useFigure('100');
  const most = useFigure('200');
  const length = useFigure('450');
  const extension = useFigure('0');
  const ready = [torque, most, length, extension].every((f) => f.n !== undefined);
  const { data: out, error } = useQuery(
    wrenchSum(
      ready
        ? {
            torqueNm: torque.n ?? 0,
            mostNm: most.n ?? 0,
            lengthMm: length.n ?? 0,
            extensionMm: extension.n ?? 0,
          }
        : undefined,
    ),
  );
  const share = Math.min(1.2, (torque.n ?? 0) / (most.n || 1));
  return (
    <Sum
      title="Wrench and crowfoot"
      hint="A wrench works in 20 to 100 % of its range. The crowfoot stands in line with the wrench; turned back towards the grip its length is below zero, at a right angle it changes nothing."
      drawing={
        <svg
          viewBox="0 0 240 70"
          role="img"
          aria-label={`${Math.round(share * 100)} % of its range`}
        >
          <rect className="ghost" x="10" y="26" width="200" height="14" />
          <rect className="shape" x="50" y="26" width="160" height="14" />
          <path className="hand" d={`M${10 + 200 * share} 16v34`} />
          <text x="50" y="62" textAnchor="middle">
            20 %
          </text>
          <text x="210" y="62" textAnchor="middle">
            100 %
          </text>
          <text x={10 + 200 * share} y="12" textAnchor="middle">
            {Math.round(share * 100)} %
          </text>
        </svg>
      }
      result={
        out && (
          <>
            <p className="figure">
              {short(out.settingNm, 1)} <span className="unit">N·m to set</span>
            </p>
            <p className={out.fit === 'GOOD' ? undefined : 'fault'}>
              {short(torque.n ?? 0)} N·m: {out.words}.
            </p>
          </>
        )
      }
    >
      <FigureField
        id="w-torque"
        label="Wanted torque"
        unit="N·m"
        figure={torque}
        error={error}
        at="/torqueNm"
      />
      <FigureField
        id="w-most"
        label="Wrench goes up to"
        unit="N·m"
        figure={most}
        error={error}
        at="/mostNm"
      />
      <FigureField
        id="w-length"
        label="Grip to square"
        unit="mm"
        figure={length}
        error={error}
        at="/lengthMm"
      />
      <FigureField
        id="w-extension"
        label="Crowfoot, square to bolt"
        unit="mm"
        figure={extension}
        error={error}
        at="/extensionMm"
      />
    </Sum>
  );
}

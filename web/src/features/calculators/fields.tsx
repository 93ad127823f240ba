import { useState } from 'react';
import { Problem } from '../../api/client';
import { numberOf } from '../../shared/ui/spelling';

/** A figure as it is typed; `n` is there once it is a number. */
export interface Figure {
  text: string;
  n?: number;
  set: (text: string) => void;
}

export function useFigure(start: string): Figure {
  const [text, set] = useState(start);
  const n = numberOf(text, 6);
  return { text, n: text.trim() === '' || Number.isNaN(n) ? undefined : n, set };
}

/** A figure with its unit; what the server says of it stands beneath. */
export function FigureField({
  id,
  label,
  unit,
  figure,
  error,
  at,
}: {
  id: string;
  label: string;
  unit: string;
  figure: Figure;
  error?: unknown;
  at?: string;
}) {
  const fault =
    figure.n === undefined && figure.text.trim() !== ''
      ? 'This is not a number.'
      : error instanceof Problem && at
        ? error.at(at)
        : undefined;
  return (
    <div className="figure-field">
      <label htmlFor={id}>{label}</label>
      <span className="with-unit">
        <input
          id={id}
          inputMode="decimal"
          value={figure.text}
          aria-invalid={fault !== undefined}
          aria-describedby={fault ? `${id}-fault` : undefined}
          onChange={(e) => figure.set(e.target.value)}
        />
        <span className="unit">{unit}</span>
      </span>
      {fault && (
        <span className="fault" role="alert" id={`${id}-fault`}>
          {fault}
        </span>
      )}
    </div>
  );
}

/** Choices side by side, one of them taken. */
export function Pick<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: { value: T; label: string }[];
  onChange: (value: T) => void;
}) {
  return (
    <div className="pick" role="group" aria-label={label}>
      {options.map((o) => (
        <button
          key={o.value}
          type="button"
          aria-pressed={o.value === value}
          onClick={() => onChange(o.value)}
        >
          {o.label}
        </button>
      ))}
    </div>
  );
}

/** A calculator: its name, its figures, what comes out, and a drawing. */
export function Sum({
  title,
  children,
  result,
  drawing,
  hint,
}: {
  title: string;
  children: React.ReactNode;
  result: React.ReactNode;
  drawing?: React.ReactNode;
  hint?: string;
}) {
  return (
    <section className="small-sum" aria-label={title}>
      <h2>{title}</h2>
      <div className="small-sum-body">
        <div className="small-sum-figures">{children}</div>
        {drawing && <div className="small-sum-drawing">{drawing}</div>}
        <div className="small-sum-result" aria-live="polite">
          {result}
        </div>
      </div>
      {hint && <p className="small-sum-hint">{hint}</p>}
    </section>
  );
}

/** At most `digits` decimals, none that say nothing. */
export const short = (n: number, digits = 2) => String(Number(n.toFixed(digits)));

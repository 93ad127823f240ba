import { Input } from 'antd';
import { useId, useLayoutEffect, useRef, useState } from 'react';
import { formatNumber } from '../format';
import { readNumber } from './spelling';
import { useTyped } from './typed';
import { goToFirstFault } from './validity';

/** What a unit of time that is typed counts in the field's own. Distances are converted where they are judged, by the server. */
const IN: Record<string, Record<string, number>> = {
  months: { years: 12 },
  min: { h: 60 },
};

const shown = (value: number | undefined) => (value === undefined ? '' : String(value));

/**
 * A number as people type it: comma or point, thousands in either style, with its unit or without. What it understood
 * stands below where it is not what was typed; what it cannot read, or what is far from usual, keeps the form from
 * being sent until it is put right or said to be so.
 */
export function NumberField({
  id,
  value,
  onChange,
  unit,
  decimals = 0,
  usual,
  suffix,
  status = '',
  placeholder,
  describedBy,
  autoFocus,
  label,
  onUnit,
}: {
  id?: string;
  value: number | undefined;
  onChange: (value: number | undefined) => void;
  /** the field's own unit, after the figure */
  unit?: string;
  decimals?: number;
  /** values outside are asked about before they are taken */
  usual?: readonly [number, number];
  /** stands in place of the unit, such as a currency's sign */
  suffix?: string;
  status?: '' | 'error';
  placeholder?: string;
  describedBy?: string;
  autoFocus?: boolean;
  /** where no label stands beside it */
  label?: string;
  /** the unit is chosen beside it; told where one is typed with the figure */
  onUnit?: (unit: 'km' | 'mi') => void;
}) {
  const own = useId();
  const noteId = `${id ?? own}-read`;
  const { text, setText, setSent } = useTyped(value, shown);
  const [meant, setMeant] = useState<number>();
  const input = useRef<HTMLInputElement>(null);
  const read = readNumber(text, decimals);
  const factor = (from: string | undefined) =>
    from === undefined ||
    from === (unit ?? suffix) ||
    (onUnit !== undefined && (from === 'km' || from === 'mi')) ||
    (from === 'money' && suffix !== undefined)
      ? 1
      : (unit ?? suffix) === undefined
        ? undefined
        : IN[(unit ?? suffix)!]?.[from];
  const rounded = (n: number) => Number(n.toFixed(decimals));
  const valueOf = (t: string) => {
    const r = readNumber(t, decimals);
    const f = r.kind === 'is' ? factor(r.unit) : undefined;
    return r.kind === 'is' && f !== undefined ? rounded(r.value * f) : undefined;
  };
  const understood = valueOf(text);
  const odd =
    usual !== undefined &&
    understood !== undefined &&
    (understood < usual[0] || understood > usual[1]) &&
    meant !== understood;
  const words = (n: number) =>
    `${formatNumber(n, decimals)}${suffix || unit ? ` ${suffix ?? unit}` : ''}`;
  const wrong =
    read.kind === 'not'
      ? read.words
      : read.kind === 'is' && factor(read.unit) === undefined
        ? `This is counted in ${unit ?? suffix ?? 'pieces'}.`
        : undefined;
  const asks = read.kind === 'ask' ? read.values : undefined;
  const invalid = wrong ?? (asks ? 'Which of them?' : odd ? 'Is it so?' : '');
  useLayoutEffect(() => input.current?.setCustomValidity(invalid), [invalid]);
  const take = (t: string) => {
    setText(t);
    const typed = readNumber(t, decimals);
    if (typed.kind === 'is' && (typed.unit === 'km' || typed.unit === 'mi')) onUnit?.(typed.unit);
    const next = valueOf(t);
    setSent(next);
    if (next !== value) onChange(next);
  };
  const plain = text.trim().replace(/\s/g, '');
  const restate = understood !== undefined && plain !== String(understood) && !odd;
  return (
    <span className="number-field">
      <Input
        ref={(r) => {
          input.current = r?.input ?? null;
        }}
        id={id}
        aria-label={label}
        inputMode="decimal"
        autoComplete="off"
        value={text}
        placeholder={placeholder}
        autoFocus={autoFocus}
        status={status || (invalid ? 'error' : '')}
        suffix={suffix ?? unit}
        aria-invalid={invalid !== ''}
        aria-describedby={[noteId, describedBy].filter(Boolean).join(' ')}
        onInvalid={goToFirstFault}
        onChange={(e) => take(e.target.value)}
      />
      <span className="read" id={noteId} role="status">
        {wrong && <span className="field-note">{wrong}</span>}
        {asks && (
          <span className="field-note">
            {asks.map((n) => (
              <button key={n} type="button" className="link" onClick={() => take(String(n))}>
                {words(n)}?
              </button>
            ))}
          </span>
        )}
        {odd && (
          <span className="warning-note">
            Far from usual.{' '}
            <button type="button" className="link" onClick={() => setMeant(understood)}>
              Yes, {words(understood)}
            </button>
          </span>
        )}
        {restate && <span className="hint">= {words(understood)}</span>}
      </span>
    </span>
  );
}

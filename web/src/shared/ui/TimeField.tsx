import { Input } from 'antd';
import { useLayoutEffect, useRef } from 'react';
import { useTyped } from './typed';
import { goToFirstFault } from './validity';

/** A time of day as people type it, "7", "730", "7.30", "07:30", as HH:MM; undefined where it is none. */
export function timeOf(text: string): string | undefined {
  const plain = text.trim().replace(/\s*(h|uhr|o'clock)$/i, '');
  const parts =
    /^(\d{1,2})(?:\s*[:.hH]\s*(\d{2}))?$/.exec(plain) ?? /^(\d{1,2})(\d{2})$/.exec(plain);
  if (!parts) return undefined;
  const hour = Number(parts[1]);
  const minute = Number(parts[2] ?? 0);
  if (hour > 23 || minute > 59) return undefined;
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

const shown = (value: string | undefined) => value?.slice(0, 5) ?? '';

/** A time of day, typed in any usual way, shown as HH:MM. */
export function TimeField({
  id,
  label,
  value,
  onChange,
  status = '',
}: {
  id?: string;
  /** where no label stands beside it */
  label?: string;
  /** HH:MM, with or without seconds; undefined for none */
  value: string | undefined;
  onChange: (value: string | undefined) => void;
  status?: '' | 'error';
}) {
  const { text, setText, setSent } = useTyped(value, shown);
  const input = useRef<HTMLInputElement>(null);
  const wrong =
    text.trim() !== '' && timeOf(text) === undefined ? 'A time of day, such as 07:30.' : '';
  useLayoutEffect(() => input.current?.setCustomValidity(wrong), [wrong]);
  return (
    <span className="time-field">
      <Input
        ref={(r) => {
          input.current = r?.input ?? null;
        }}
        id={id}
        aria-label={label}
        autoComplete="off"
        inputMode="numeric"
        placeholder="08:00"
        value={text}
        status={status || (wrong ? 'error' : '')}
        aria-invalid={wrong !== ''}
        onInvalid={goToFirstFault}
        onChange={(e) => {
          const next = timeOf(e.target.value);
          setText(e.target.value);
          setSent(next);
          if (next !== value) onChange(next);
        }}
        onBlur={() => !wrong && setText(shown(timeOf(text)))}
      />
      {wrong && <span className="field-note">{wrong}</span>}
    </span>
  );
}

import { CalendarOutlined } from '@ant-design/icons';
import { Calendar, Input, Popover } from 'antd';
import dayjs from 'dayjs';
import { useId, useLayoutEffect, useRef, useState } from 'react';
import { addDays, addMonths, formatDate, isoOf } from '../format';
import { readDate } from './spelling';
import { useTyped } from './typed';
import { goToFirstFault } from './validity';

const shown = (value: string | undefined) => (value ? formatDate(value) : '');

/** What the arrows do: a day, and with page keys a month, as on a wall calendar. */
const STEPS: Record<string, (iso: string) => string> = {
  ArrowUp: (d) => addDays(d, 1),
  ArrowDown: (d) => addDays(d, -1),
  PageUp: (d) => addMonths(d, 1),
  PageDown: (d) => addMonths(d, -1),
};

/**
 * A day, typed in any usual way or picked; shown as the app writes dates. What can be read in two ways is asked about,
 * and keeps the form from being sent until then.
 */
export function DateField({
  id,
  value: given,
  onChange,
  onDone,
  disabled = false,
  today = isoOf(new Date()),
  min,
  max,
  status = '',
  label,
  describedBy,
}: {
  id?: string;
  /** ISO; undefined for none */
  value: string | undefined;
  onChange: (value: string | undefined) => void;
  /** the day stands: the field was left, or Enter was pressed in it */
  onDone?: () => void;
  disabled?: boolean;
  /** the day that the word says, and the year of a day without one; left out: as this device has it */
  today?: string;
  min?: string;
  max?: string;
  status?: '' | 'error';
  /** where no label stands beside it */
  label?: string;
  describedBy?: string;
}) {
  const own = useId();
  const value = given || undefined;
  const noteId = `${id ?? own}-read`;
  const { text, setText, setSent } = useTyped(value, shown);
  const [open, setOpen] = useState(false);
  // the line below stays where it was when the field is left: what stands under it must not move under a touch
  const [left, setLeft] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const read = readDate(text, today);
  const beyond =
    read.kind === 'is' &&
    (max !== undefined && read.value > max
      ? `Not after ${formatDate(max)}.`
      : min !== undefined && read.value < min
        ? `Not before ${formatDate(min)}.`
        : undefined);
  const wrong = read.kind === 'not' ? read.words : beyond || undefined;
  const asks = read.kind === 'ask' ? read.values : undefined;
  const invalid = wrong ?? (asks ? 'Which of them?' : '');
  useLayoutEffect(() => input.current?.setCustomValidity(invalid), [invalid]);
  const send = (next: string | undefined) => {
    setSent(next);
    if (next !== value) onChange(next);
  };
  const type = (t: string) => {
    setLeft(false);
    setText(t);
    const r = readDate(t, today);
    const within = r.kind === 'is' && !(max && r.value > max) && !(min && r.value < min);
    send(within ? r.value : undefined);
  };
  const pick = (iso: string) => {
    setText(shown(iso));
    send(iso);
  };
  const restate = read.kind === 'is' && !wrong && text.trim() !== shown(read.value);
  return (
    <span className="date-field">
      <Input
        ref={(r) => {
          input.current = r?.input ?? null;
        }}
        id={id}
        aria-label={label}
        autoComplete="off"
        placeholder="25 Nov 2026"
        value={text}
        status={status || (invalid ? 'error' : '')}
        aria-invalid={invalid !== ''}
        aria-describedby={[noteId, describedBy].filter(Boolean).join(' ')}
        onInvalid={goToFirstFault}
        onChange={(e) => type(e.target.value)}
        disabled={disabled}
        onBlur={() => {
          if (read.kind === 'is' && !wrong) {
            setLeft(restate);
            setText(shown(read.value));
          }
          if (!wrong && !asks) onDone?.();
        }}
        onPressEnter={() => !wrong && !asks && onDone?.()}
        onKeyDown={(e) => {
          const step = STEPS[e.key];
          if (!step || read.kind === 'not' || read.kind === 'ask') return;
          e.preventDefault();
          pick(read.kind === 'is' ? step(read.value) : today);
        }}
        suffix={
          <Popover
            open={open}
            onOpenChange={setOpen}
            trigger="click"
            placement="bottomRight"
            content={
              <div className="date-pick">
                <Calendar
                  fullscreen={false}
                  value={dayjs(value ?? today)}
                  validRange={[dayjs(min ?? '1900-01-01'), dayjs(max ?? '2199-12-31')]}
                  onSelect={(d, { source }) => {
                    pick(d.format('YYYY-MM-DD'));
                    if (source === 'date') {
                      setOpen(false);
                      input.current?.focus();
                    }
                  }}
                />
              </div>
            }
          >
            <button type="button" className="date-open" aria-label="Pick a day" tabIndex={-1}>
              <CalendarOutlined />
            </button>
          </Popover>
        }
      />
      <span className="read" id={noteId} role="status">
        {wrong && <span className="field-note">{wrong}</span>}
        {asks && (
          <span className="field-note">
            {asks.map((d) => (
              <button key={d} type="button" className="link" onClick={() => pick(d)}>
                {formatDate(d)}?
              </button>
            ))}
          </span>
        )}
        {(restate || left) && read.kind === 'is' && (
          <span className={restate ? 'hint' : 'hint unshown'}>= {formatDate(read.value)}</span>
        )}
      </span>
    </span>
  );
}

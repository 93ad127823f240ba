import { Button } from 'antd';
import { useEffect, useRef } from 'react';
import { Problem } from '../api/client';
import { FieldNote, ProblemNote } from './ProblemNote';
import { Leave } from './ui/Leave';

/** A small form that stands where its button was: what it is, its fields, what went wrong, send or leave. */
export function CardForm({
  title,
  submit,
  error,
  at = [],
  pending,
  disabled = false,
  onSubmit,
  onClose,
  extra,
  children,
}: {
  title: string;
  /** The words on the button that sends it. */
  submit: string;
  error: unknown;
  /** Pointers whose message stands beside a field of this form. */
  at?: string[];
  pending: boolean;
  disabled?: boolean;
  onSubmit: () => void;
  onClose: () => void;
  /** A second way to send. */
  extra?: React.ReactNode;
  children: React.ReactNode;
}) {
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    form.current?.scrollIntoView?.({ block: 'nearest' });
  }, []);
  const beside = error instanceof Problem && error.onlyAt(...at);
  return (
    <form
      ref={form}
      className="form card-form"
      onSubmit={(e) => {
        e.preventDefault();
        onSubmit();
      }}
    >
      <h3>{title}</h3>
      {children}
      {!beside && <ProblemNote error={error} />}
      <div className="actions">
        <Button type="primary" htmlType="submit" loading={pending} disabled={disabled}>
          {submit}
        </Button>
        {extra}
        <Leave onClick={onClose} />
      </div>
    </form>
  );
}

/** A control under its label, with its message below. */
export function Field({
  id,
  label,
  error,
  at,
  hint,
  grow = false,
  children,
}: {
  id: string;
  label: string;
  error?: unknown;
  /** The pointer of the field in the request. */
  at?: string;
  hint?: React.ReactNode;
  grow?: boolean;
  children: React.ReactNode;
}) {
  return (
    <div className={grow ? 'grow' : ''}>
      <label htmlFor={id}>{label}</label>
      {children}
      {at && <FieldNote error={error} at={at} />}
      {hint && <span className="hint">{hint}</span>}
    </div>
  );
}

/** Red edge for a control whose field has a message. */
export const faulty = (error: unknown, at: string) =>
  error instanceof Problem && error.at(at) ? ('error' as const) : ('' as const);

import { useId } from 'react';
import type { Schemas } from '../api/client';

type Status = Schemas['DeskRow']['status'];
type Interference = Schemas['DeskRow']['interference'];

const INTERFERENCE_WORDS = {
  YES: 'interference engine',
  NO: 'not an interference engine',
  UNKNOWN: 'interference unconfirmed',
} as const;

/** What the mark says, in words; nothing where no engine is known. */
export const interferenceWords = (value: Interference) => (value ? INTERFERENCE_WORDS[value] : '');

/** A filled belt tooth, an open ring, or a ring half filled: each its own silhouette. */
export function InterferenceMark({ value, size = 14 }: { value: Interference; size?: number }) {
  if (!value) return <span className="no-mark" style={{ width: size }} />;
  return (
    <svg
      className="mark"
      width={size}
      height={size}
      viewBox="0 0 14 14"
      role="img"
      aria-label={INTERFERENCE_WORDS[value]}
    >
      <title>{INTERFERENCE_WORDS[value]}</title>
      {value === 'YES' && <path d="M3.4 1h2v3.6h3.2V1h2L13 13H1z" />}
      {value !== 'YES' && <circle cx="7" cy="7" r="5.4" className="ring" />}
      {value === 'UNKNOWN' && <path d="M7 1.6a5.4 5.4 0 0 0 0 10.8z" />}
    </svg>
  );
}

/** The pattern of a status; beside it always stands its word. */
export function StatusSwatch({ status }: { status: Status }) {
  const id = useId();
  return (
    <svg
      className={`swatch ${status}`}
      width="22"
      height="12"
      viewBox="0 0 22 12"
      aria-hidden="true"
    >
      <defs>
        {status === 'OVERDUE' && (
          <pattern
            id={id}
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="3" height="5" className="stroke" />
          </pattern>
        )}
        {status === 'ACT_NOW' && (
          <pattern id={id} width="5" height="5" patternUnits="userSpaceOnUse">
            <rect width="2" height="5" className="stroke" />
          </pattern>
        )}
        {status === 'COMING' && (
          <pattern
            id={id}
            width="8"
            height="8"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(-45)"
          >
            <rect width="1.5" height="8" className="stroke" />
          </pattern>
        )}
        {status === 'UNKNOWN_HISTORY' && (
          <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
            <circle cx="3" cy="3" r="1.1" className="stroke" />
          </pattern>
        )}
        {status === 'NO_BOOK' && (
          <pattern
            id={id}
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <path d="M0 0H6M0 0V6" className="line" />
          </pattern>
        )}
      </defs>
      <rect className="ground" x="0.5" y="0.5" width="21" height="11" />
      {!['STOP', 'CLEAR'].includes(status) && (
        <rect x="0.5" y="0.5" width="21" height="11" fill={`url(#${id})`} className="pattern" />
      )}
    </svg>
  );
}

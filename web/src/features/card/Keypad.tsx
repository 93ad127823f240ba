import { useEffect } from 'react';

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', 'back'];

/** Large keys and a unit beside them; a keyboard works as well. */
export function Keypad<U extends string>({
  label,
  value,
  onChange,
  units,
  unit,
  onUnit,
  sign,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  units: { value: U; label: string }[];
  unit: U;
  onUnit: (unit: U) => void;
  /** a figure that may lie below zero */
  sign?: { below: boolean; onBelow: (below: boolean) => void };
}) {
  const press = (key: string) => {
    if (key === 'back') onChange(value.slice(0, -1));
    else if (key !== '.' || !value.includes('.')) onChange((value + key).slice(0, 10));
  };
  useEffect(() => {
    const listen = (e: KeyboardEvent) => {
      const busy =
        e.target instanceof HTMLElement && ['INPUT', 'TEXTAREA'].includes(e.target.tagName);
      if (busy || e.ctrlKey || e.metaKey) return;
      if (/^[0-9.]$/.test(e.key)) press(e.key);
      if (e.key === 'Backspace') press('back');
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  });
  return (
    <div className="keypad">
      <output aria-label={label} className="readout">
        {sign?.below && '−'}
        {value || <span className="muted">0</span>}
        <span className="muted"> {units.find((u) => u.value === unit)?.label}</span>
      </output>
      <div className={units.length > 1 || sign ? 'keys-and-units' : 'keys-and-units single'}>
        <div className="pad">
          {KEYS.map((k) => (
            <button
              key={k}
              className="bench-button key"
              aria-label={k === 'back' ? 'Delete the last digit' : k === '.' ? 'decimal point' : k}
              onClick={() => press(k)}
            >
              {k === 'back' ? (
                <svg width="26" height="20" viewBox="0 0 26 20" aria-hidden="true">
                  <path
                    d="M9 2h15v16H9L2 10z M13 7l6 6m0-6l-6 6"
                    fill="none"
                    stroke="currentColor"
                    strokeWidth="1.6"
                  />
                </svg>
              ) : (
                k
              )}
            </button>
          ))}
        </div>
        {(units.length > 1 || sign) && (
          <div className="units" role="group" aria-label={sign ? 'Sign' : 'Unit'}>
            {sign && (
              <button
                className={sign.below ? 'bench-button unit on' : 'bench-button unit'}
                aria-pressed={sign.below}
                onClick={() => sign.onBelow(!sign.below)}
              >
                below 0
              </button>
            )}
            {units.length > 1 &&
              units.map((u) => (
                <button
                  key={u.value}
                  className={u.value === unit ? 'bench-button unit on' : 'bench-button unit'}
                  aria-pressed={u.value === unit}
                  onClick={() => onUnit(u.value)}
                >
                  {u.label}
                </button>
              ))}
          </div>
        )}
      </div>
    </div>
  );
}

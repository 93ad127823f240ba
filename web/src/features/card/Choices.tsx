/** One of several, each a button under the thumb; the chosen one is pressed. */
export function Choices<T extends string | number | undefined>({
  options,
  chosen,
  columns = 'narrow',
  onChoose,
}: {
  options: readonly (readonly [value: T, words: string])[];
  chosen: T | undefined;
  columns?: 'narrow' | 'three';
  onChoose: (value: T) => void;
}) {
  return (
    <div className={`sheet-menu ${columns}`}>
      {options.map(([value, words]) => (
        <button
          key={value ?? ''}
          className={chosen === value ? 'bench-button on' : 'bench-button'}
          aria-pressed={chosen === value}
          onClick={() => onChoose(value)}
        >
          {words}
        </button>
      ))}
    </div>
  );
}

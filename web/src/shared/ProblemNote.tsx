import { Problem } from '../api/client';

/** A failure in words, with a way to try again. */
export function ProblemNote({
  error,
  retry,
  beside = [],
}: {
  error: unknown;
  retry?: () => void;
  /** Pointers whose message stands beside a field already; nothing is said twice. */
  beside?: string[];
}) {
  if (!error || (error instanceof Problem && error.onlyAt(...beside))) return null;
  const message = error instanceof Error ? error.message : 'Something went wrong.';
  const conflict = error instanceof Problem && error.status === 409;
  return (
    <div className="problem" role="alert">
      <strong>{conflict ? 'Changed meanwhile.' : 'Not done.'}</strong> {message}{' '}
      {retry && (
        <button className="link" onClick={retry}>
          {conflict ? 'Load again' : 'Try again'}
        </button>
      )}
    </div>
  );
}

/** The message that stands beside a field. */
export function FieldNote({ error, at, id }: { error: unknown; at: string; id?: string }) {
  const words = error instanceof Problem ? error.at(at) : undefined;
  return words ? (
    <div className="field-note" role="alert" id={id}>
      {words}
    </div>
  ) : null;
}

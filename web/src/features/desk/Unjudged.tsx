import { Link } from 'react-router';
import type { Schemas } from '../../api/client';
import { formatMoment } from '../../shared/format';

const NAMED = 5;

/** Vehicles the rules give no answer for, and figures that could not be made anew: never silently. */
export function Unjudged({ view }: { view: Schemas['DeskView'] }) {
  return (
    <>
      {view.figuresOf && (
        <p className="warning-note" role="status">
          These figures are of {formatMoment(view.figuresOf)}: working them out anew has failed, and
          is tried again. What you enter is recorded.
        </p>
      )}
      {view.unjudged.slice(0, NAMED).map((v) => (
        <p key={v.vehicleId} className="warning-note" role="status">
          <Link to={`/vehicles/${v.vehicleId}`}>{v.registration}</Link> cannot be judged: {v.why}.
          It stands in the list as if that were not on file; put it right in its file.
        </p>
      ))}
      {view.unjudged.length > NAMED && (
        <p className="warning-note">…and {view.unjudged.length - NAMED} more.</p>
      )}
    </>
  );
}

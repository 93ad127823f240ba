import { Link } from 'react-router';
import type { Schemas } from '../api/client';
import { StatusSwatch } from '../drawing/marks';

/** A vehicle in a table: what it is, and the way to its dossier. */
export function VehicleCell({
  vehicle,
}: {
  vehicle: { vehicleId: number; registration: string; makeModel: string };
}) {
  return (
    <td>
      <Link to={`/vehicles/${vehicle.vehicleId}`} className="registration">
        {vehicle.registration}
      </Link>{' '}
      {vehicle.makeModel}
    </td>
  );
}

/** How a vehicle stands, its pattern beside its word. */
export function StandingCell({
  status,
  words,
}: {
  status: Schemas['DeskRow']['status'];
  words: string;
}) {
  return (
    <td>
      <StatusSwatch status={status} /> {words}
    </td>
  );
}

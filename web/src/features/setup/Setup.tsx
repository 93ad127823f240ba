import { NavLink, Outlet } from 'react-router';
import { useMe } from '../../shared/me';

/** Where the workshop's own figures, people and lists are kept. */
export default function Setup() {
  const me = useMe();
  return (
    <div className="page setup">
      <h1>Setup</h1>
      <nav aria-label="Parts of setup">
        {me.manages && (
          <>
            <NavLink to="/setup/ready">Getting ready</NavLink>
            <NavLink to="/setup/workshop">Workshop</NavLink>
            <NavLink to="/setup/people">People</NavLink>
            <NavLink to="/setup/places">Bays, fleets, usage</NavLink>
            <NavLink to="/setup" end>
              Policy and rates
            </NavLink>
            <NavLink to="/setup/assumptions">Assumptions</NavLink>
            <NavLink to="/setup/breakdowns">Breakdowns</NavLink>
            <NavLink to="/setup/matching">Matching engines</NavLink>
            <NavLink to="/setup/letters">Letters and mail</NavLink>
            <NavLink to="/setup/outside">Devices and deliveries</NavLink>
          </>
        )}
        <NavLink to="/setup/import">Import a list</NavLink>
        {me.manages && <NavLink to="/setup/everything">Everything as files</NavLink>}
        {me.manages && <NavLink to="/setup/backups">Backups</NavLink>}
      </nav>
      <Outlet />
    </div>
  );
}

import { NavLink, Outlet } from 'react-router';

/** The stores: what coming jobs need, orders, tool sets, and the catalogue of parts. */
export default function Stores() {
  return (
    <div className="page">
      <nav className="stores-nav" aria-label="Stores">
        <NavLink to="/stores" end>
          Coming jobs
        </NavLink>
        <NavLink to="/stores/orders">Orders</NavLink>
        <NavLink to="/stores/tool-sets">Tool sets</NavLink>
        <NavLink to="/stores/parts">Parts</NavLink>
      </nav>
      <Outlet />
    </div>
  );
}

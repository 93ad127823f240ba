import { Link } from 'react-router';
import { Calculators } from './Calculators';

/** The calculators as a page of their own. */
export default function CalculatorsPage() {
  return (
    <div className="page calculators">
      <div className="page-head">
        <h1>Calculators</h1>
        <Link className="action" to="/practice">
          Practice
        </Link>
      </div>
      <p className="hint">
        Figures here are sums, not values: what belongs to an engine stands in its book, and the
        manufacturer’s instructions come first.
      </p>
      <Calculators />
    </div>
  );
}

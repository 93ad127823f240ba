import type { Schemas } from '../../api/client';
import { ClearanceCalculator, CoolantCalculator } from './Fluids';
import { PistonCalculator } from './Piston';
import { TeethCalculator } from './Teeth';
import { TensionCalculator } from './Tension';
import { TorqueCalculator, WrenchCalculator } from './Torque';

/** The small sums of the bench, one under the other. */
export function Calculators({ path }: { path?: Schemas['PathView'] }) {
  return (
    <div className="small-sums">
      <TeethCalculator path={path} />
      <TorqueCalculator />
      <WrenchCalculator />
      <TensionCalculator />
      <PistonCalculator />
      <CoolantCalculator />
      <ClearanceCalculator />
    </div>
  );
}

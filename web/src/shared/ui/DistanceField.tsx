import type { ComponentProps } from 'react';
import { distanceUnit, inUnit, kmOf } from '../format';
import { NumberField } from './NumberField';

type Range = readonly [number, number];

/** A distance, kept in whole km, shown and typed in the workshop's own unit. */
export function DistanceField({
  value,
  onChange,
  usual,
  ...rest
}: Omit<ComponentProps<typeof NumberField>, 'unit' | 'decimals' | 'onUnit' | 'suffix'> & {
  /** km */
  usual?: Range;
}) {
  return (
    <NumberField
      {...rest}
      unit={distanceUnit()}
      usual={usual && [Math.round(inUnit(usual[0])), Math.round(inUnit(usual[1]))]}
      value={value === undefined ? undefined : Math.round(inUnit(value))}
      onChange={(v) => onChange(v === undefined ? undefined : kmOf(v))}
    />
  );
}

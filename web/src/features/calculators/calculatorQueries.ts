import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

/** One sum; asked anew whenever its figures change, the last answer stays meanwhile. */
function sum<I, O>(name: string, ask: (body: I) => Promise<O>, body: I | undefined) {
  return queryOptions({
    queryKey: ['sum', name, body],
    queryFn: () => ask(body as I),
    enabled: body !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
}

export const torqueSum = (body?: Schemas['TorqueIn']) =>
  sum('torque', (b) => data(api.POST('/api/calculations/bench/torque', { body: b })), body);
export const wrenchSum = (body?: Schemas['WrenchIn']) =>
  sum('wrench', (b) => data(api.POST('/api/calculations/bench/wrench', { body: b })), body);
export const tensionSum = (body?: Schemas['TensionIn']) =>
  sum('tension', (b) => data(api.POST('/api/calculations/bench/tension', { body: b })), body);
export const pistonSum = (body?: Schemas['PistonIn']) =>
  sum('piston', (b) => data(api.POST('/api/calculations/bench/piston', { body: b })), body);
export const coolantSum = (body?: Schemas['CoolantIn']) =>
  sum('coolant', (b) => data(api.POST('/api/calculations/bench/coolant', { body: b })), body);
export const clearanceSum = (body?: Schemas['ClearanceIn']) =>
  sum('clearance', (b) => data(api.POST('/api/calculations/bench/clearance', { body: b })), body);
export const teethSum = (body?: Schemas['TeethIn']) =>
  sum('teeth', (b) => data(api.POST('/api/calculations/bench/teeth', { body: b })), body);

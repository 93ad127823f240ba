import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import { choicesQuery } from '../features/desk/deskQueries';

/** What the server holds for usual; a figure outside is asked about. */
export function useUsual() {
  const { data } = useQuery(choicesQuery);
  return (what: keyof Schemas['ChoicesView']['usual']): readonly [number, number] | undefined => {
    const range = data?.usual[what];
    return range && [range.low, range.high];
  };
}

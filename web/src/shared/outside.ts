import { useQuery } from '@tanstack/react-query';
import { choicesQuery } from '../features/desk/deskQueries';

/** What is connected to the workshop, and what a delivery is called there. */
export function useOutside() {
  const { data } = useQuery(choicesQuery);
  return {
    faultCodeReader: data?.faultCodeReader ?? false,
    beltMeter: data?.beltMeter ?? false,
    delivery: data?.delivery ?? 'delivery',
  };
}

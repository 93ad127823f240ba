import { useQuery } from '@tanstack/react-query';
import { meQuery } from './queries';

/** Who is signed in. Only used below the sign-in, where somebody is. */
export function useMe() {
  const { data } = useQuery(meQuery);
  if (!data) throw new Error('asked who is signed in before anybody is');
  const role = data.role;
  return {
    ...data,
    manages: role === 'MANAGER',
    /** Finds, builds, books. */
    desk: role === 'MANAGER' || role === 'FRONT_DESK',
    /** Works job cards. */
    bench: role === 'MANAGER' || role === 'TECHNICIAN',
    /** Sees its own fleet and changes nothing. */
    readsOnly: role === 'FLEET_CONTACT',
  };
}

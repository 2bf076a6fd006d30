import { useQuery } from '@tanstack/react-query';
import { placeOfZone } from './device';

/** Where a time zone is and what is paid with there; its tables are fetched when they are first asked for. */
export function useZonePlace(zone: string) {
  return useQuery({ queryKey: ['zonePlace', zone], queryFn: () => placeOfZone(zone), staleTime: Infinity, retry: 2 });
}

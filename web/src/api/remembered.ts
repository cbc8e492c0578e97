/** What is drawn at once as it was last worked out, and then as it is. */
import { type QueryKey, useQuery } from "@tanstack/react-query";

/**
 * `ask` is told whether what is remembered will do: that is asked for only until the rest is here.
 */
export function useRemembered<T>(
  queryKey: QueryKey,
  ask: (as_remembered: boolean) => Promise<T>,
  staleTime?: number,
) {
  const now = useQuery({
    queryKey,
    queryFn: () => ask(false),
    ...(staleTime === undefined ? {} : { staleTime }),
  });
  const then = useQuery({
    queryKey: ["remembered", ...queryKey],
    queryFn: () => ask(true),
    enabled: now.isPending,
    gcTime: 0,
  });
  return { ...now, data: now.data ?? then.data, isPending: now.isPending && !then.data };
}

/** Questions about deliveries. */
import { useQuery } from "@tanstack/react-query";
import { client, data, type Schemas } from "./client";
import { type Delivery, keys, path, useChange } from "./queries";

export const useDeliveries = (site: number) =>
  useQuery({
    queryKey: keys.deliveries(site),
    queryFn: () => data(client.GET("/api/sites/{site_id}/deliveries", path({ site_id: site }))),
    refetchInterval: (q) => (q.state.data?.some((d) => isOpen(d.state)) ? 1000 : false),
  });

export const isOpen = (state: Delivery["state"]) =>
  state === "queued" || state === "running" || state === "stopping";

/** The latest run of a placement, followed while it is at work. */
export const useLatestDelivery = (placement: number) =>
  useQuery({
    queryKey: keys.delivery(placement),
    queryFn: () =>
      data(
        client.GET(
          "/api/placements/{placement_id}/deliveries/latest",
          path({ placement_id: placement }),
        ),
      ),
    refetchInterval: (q) => (q.state.data && isOpen(q.state.data.state) ? 600 : false),
  });

/** The latest finished run: what Proof looks at. */
export const useDelivered = (placement: number, enabled: boolean) =>
  useQuery({
    queryKey: [...keys.delivery(placement), "done"],
    enabled,
    queryFn: () =>
      data(
        client.GET("/api/placements/{placement_id}/deliveries/latest", {
          params: { path: { placement_id: placement }, query: { state: "done" } },
        }),
      ),
  });

export const usePredictions = (delivery: number | undefined, ask: Schemas["PicksIn"]) =>
  useQuery({
    queryKey: ["picks", delivery, ask],
    enabled: delivery !== undefined,
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      data(
        client.POST("/api/deliveries/{delivery_id}/picks", {
          ...path({ delivery_id: delivery ?? 0 }),
          body: ask,
        }),
      ),
  });

export const useStartDelivery = (placement: number) =>
  useChange(
    (effort: "quick" | "thorough") =>
      data(
        client.POST("/api/placements/{placement_id}/deliveries", {
          params: { path: { placement_id: placement }, query: { effort } },
        }),
      ),
    () => [keys.delivery(placement)],
  );

export const useStopDelivery = (placement: number) =>
  useChange(
    (id: number) =>
      data(client.POST("/api/deliveries/{delivery_id}/stop", path({ delivery_id: id }))),
    () => [keys.delivery(placement)],
  );

export const useResumeDelivery = (placement: number) =>
  useChange(
    (id: number) =>
      data(client.POST("/api/deliveries/{delivery_id}/resume", path({ delivery_id: id }))),
    () => [keys.delivery(placement)],
  );

/**
 * Runs as the list of a site has them: begun for all of it or for a page, stopped, gone on with.
 */
export const useStartSiteDelivery = (site: number) =>
  useChange(
    (page?: number) =>
      page === undefined
        ? data(client.POST("/api/sites/{site_id}/deliveries", path({ site_id: site })))
        : data(client.POST("/api/pages/{page_id}/deliveries", path({ page_id: page }))),
    () => [keys.deliveries(site)],
  );

export const useTurnDelivery = (site: number) =>
  useChange(
    ({ id, to }: { id: number; to: "stop" | "resume" }) =>
      to === "stop"
        ? data(client.POST("/api/deliveries/{delivery_id}/stop", path({ delivery_id: id })))
        : data(client.POST("/api/deliveries/{delivery_id}/resume", path({ delivery_id: id }))),
    () => [keys.deliveries(site)],
  );

export const useDeliveryChanges = (delivery: number, enabled: boolean) =>
  useQuery({
    queryKey: ["changes", delivery],
    enabled,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () =>
      data(client.GET("/api/deliveries/{delivery_id}/changes", path({ delivery_id: delivery }))),
  });

export const useClearing = (site: number, enabled: boolean) =>
  useQuery({
    queryKey: [...keys.deliveries(site), "clearing"],
    enabled,
    staleTime: 0,
    queryFn: () =>
      data(client.GET("/api/sites/{site_id}/deliveries/clearing", path({ site_id: site }))),
  });

export const useClearDeliveries = (site: number) =>
  useChange(
    () => data(client.POST("/api/sites/{site_id}/deliveries/clearing", path({ site_id: site }))),
    () => [keys.deliveries(site)],
  );

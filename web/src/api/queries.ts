/**
 * Questions to the server, by name (those about deliveries in deliveries.ts). Mutations tell the
 * cache what they made stale.
 */
import {
  infiniteQueryOptions,
  type QueryClient,
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { client, data, dataAs, type Schemas, type Told } from "./client";

export type Site = Told<Schemas["SiteOut"]>;
export type SitePlan = Site["plan"];
export type Treatments = Record<string, Treatment>;
export type Original = Told<Schemas["OriginalOut"]>;
/** What a span sets itself: null, or not there, is handed down. */
export type Treatment = Partial<Told<Schemas["Treatment"]>>;
export type Part = Omit<Told<Schemas["Part"]>, "treatments"> & { treatments: Treatments };
export type PlacementBody = Omit<Told<Schemas["Placement"]>, "parts" | "common"> & {
  parts: Part[];
  common: Treatments;
};
export type Placement = Omit<Told<Schemas["PlacementOut"]>, "placement"> & {
  placement: PlacementBody;
};
export type WholeReading = Told<Schemas["Reading"]>;
export type PartReading = WholeReading["parts"][number];
export type Moving = Told<Schemas["Moving"]>;
/** A reading as one part of the placement sees it: what is told of all, and of this part. */
export type Reading = WholeReading & PartReading & { part: number };
export type SpanReading = PartReading["spans"][number];
export type Origin = SpanReading["origin"][string];
/** What is done with a placement, by what kind of edit. */
export type Edit = Schemas["EditAsked"]["edit"];
export type Band = Told<Schemas["Band"]>;
export type Ladder = Told<Schemas["LadderReading"]>;
export type Finding = Told<Schemas["Finding"]>;
export type Delivery = Told<Schemas["DeliveryOut"]>;
export type Prediction = Told<Schemas["Prediction"]>;
export type Look = Told<Schemas["Look"]>;
export type PlacementHistory = Omit<Told<Schemas["HistoryOut"]>, "versions"> & {
  versions: (Omit<Told<Schemas["VersionOut"]>, "placement"> & { placement: PlacementBody })[];
};
export type WordsReading = NonNullable<WholeReading["words"]>;
export type WordsSpan = WordsReading["spans"][number];
export type BannerValues = WordsSpan["values"];
export type GridValues = Told<Schemas["GridValues"]>;
export type SlidesValues = Told<Schemas["SlidesValues"]>;
export type BesideValues = Told<Schemas["BesideValues"]>;
export type LogoValues = Told<Schemas["LogoValues"]>;
export type Words = NonNullable<PlacementBody["words"]>;
export type Remedy = Told<Schemas["Remedy"]>;
export type FailingSpan = Told<Schemas["FailingSpan"]>;
export type StripFrame = Told<Schemas["StripFrameOut"]>;
export type StripScreen = Told<Schemas["StripScreenOut"]>;

export const path = (params: Record<string, number>) => ({ params: { path: params as never } });

export const keys = {
  session: ["session"] as const,
  sites: ["sites"] as const,
  site: (id: number) => ["site", id] as const,
  originals: (site: number) => ["originals", site] as const,
  placements: (site: number) => ["placements", site] as const,
  placement: (id: number) => ["placement", id] as const,
  history: (placement: number) => ["history", placement] as const,
  remedies: (site: number) => ["remedies", site] as const,
  delivery: (placement: number) => ["delivery", placement] as const,
  deliveries: (site: number) => ["deliveries", site] as const,
  frameUses: (site: number) => ["frame-uses", site] as const,
};

const session = queryOptions({
  queryKey: keys.session,
  queryFn: () => data(client.GET("/api/session")),
  staleTime: Number.POSITIVE_INFINITY,
});

const site = (id: number) =>
  queryOptions({
    queryKey: keys.site(id),
    queryFn: () => dataAs<Site>(client.GET("/api/sites/{site_id}", path({ site_id: id }))),
  });

/**
 * A list that comes in parts of `most`: what a screen shows of it stays quick, however long it is.
 */
const inParts = <Row>(
  queryKey: readonly unknown[],
  most: number,
  part: (skip: number) => Promise<Row[]>,
) =>
  infiniteQueryOptions({
    queryKey,
    queryFn: ({ pageParam }) => part(pageParam),
    initialPageParam: 0,
    getNextPageParam: (last: Row[], all: Row[][]) =>
      last.length < most ? undefined : all.length * most,
  });

/** So many placements, and originals, are asked for at once. */
const MOST_ROWS = 60;
const MOST_ORIGINALS = 200;

const originals = (of: number) =>
  inParts(keys.originals(of), MOST_ORIGINALS, (skip) =>
    dataAs<Original[]>(
      client.GET("/api/sites/{site_id}/originals", {
        params: { path: { site_id: of }, query: { skip, most: MOST_ORIGINALS } },
      }),
    ),
  );

/**
 * What the screen at an address is sure to ask for is asked for at once, not one after the other.
 */
export function askAhead(queries: QueryClient, address: string) {
  void queries.prefetchQuery(session);
  const [, id, screen, inner] = /^\/sites\/(\d+)(?:\/(\w+)(?:\/(\d+))?)?/.exec(address) ?? [];
  if (!id) return;
  void queries.prefetchQuery(site(Number(id)));
  if (screen === "originals" || inner) void queries.prefetchInfiniteQuery(originals(Number(id)));
}

export const useSession = () => useQuery(session);

export const useSites = () =>
  useQuery({ queryKey: keys.sites, queryFn: () => data(client.GET("/api/sites")) });

/**
 * What the list shows of a site, asked for by each card: it reads every placement. Stale whenever
 * the list is.
 */
export const useGlance = (id: number) =>
  useQuery({
    queryKey: [...keys.sites, id],
    queryFn: () => data(client.GET("/api/sites/{site_id}/glance", path({ site_id: id }))),
  });

export const useSite = (id: number) => useQuery(site(id));

/**
 * The originals of a site as they come, the newest first; `isAll` says whether more of them follow.
 */
export function useOriginals(of: number) {
  const query = useInfiniteQuery(originals(of));
  useRest(query);
  const { pages } = query.data ?? {};
  // one that is brought while they come moves the others on
  const data = useMemo(
    () => pages && [...new Map(pages.flat().map((o) => [o.id, o])).values()],
    [pages],
  );
  return {
    data,
    isAll: query.isSuccess && !query.hasNextPage,
    isPending: query.isPending,
    error: query.error,
    refetch: query.refetch,
  };
}

const placementRows = (site: number, as_remembered: boolean) =>
  inParts([...keys.placements(site), as_remembered ? "remembered" : "now"], MOST_ROWS, (skip) =>
    dataAs<Told<Schemas["PlacementRow"]>[]>(
      client.GET("/api/sites/{site_id}/placements", {
        params: { path: { site_id: site }, query: { as_remembered, skip, most: MOST_ROWS } },
      }),
    ),
  );

/**
 * All placements of a site: as they were last seen, part by part, and as they are where that is
 * something else.
 */
export function usePlacements(site: number) {
  const then = useInfiniteQuery(placementRows(site, true));
  useRest(then);
  const seen = then.data?.pages.flat();
  const isOld = seen?.some((row) => !row.current) ?? false;
  const now = useInfiniteQuery({ ...placementRows(site, false), enabled: isOld });
  useRest(now);
  const known = new Map(
    isOld && !now.isRefetching ? now.data?.pages.flat().map((row) => [row.id, row]) : [],
  );
  return {
    data: seen?.map((row) => (row.current ? row : (known.get(row.id) ?? row))),
    isPending: then.isPending,
    error: then.error ?? now.error,
    refetch: () => Promise.all([then.refetch(), now.refetch()]),
  };
}

/** Ask for what follows until all is here. */
function useRest(query: {
  data: { pages: unknown[] } | undefined;
  hasNextPage: boolean;
  isFetching: boolean;
  fetchNextPage: () => unknown;
}) {
  const { hasNextPage, isFetching, fetchNextPage } = query;
  // an answer can be here before it is seen to be under way
  const here = query.data?.pages.length;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once more after each part
  useEffect(() => {
    if (hasNextPage && !isFetching) void fetchNextPage();
  }, [hasNextPage, isFetching, fetchNextPage, here]);
}

export const usePlacement = (id: number) =>
  useQuery({
    queryKey: keys.placement(id),
    queryFn: () =>
      dataAs<Placement>(client.GET("/api/placements/{placement_id}", path({ placement_id: id }))),
    staleTime: 0,
    gcTime: 0,
  });

export const useHistory = (placement: number, enabled: boolean) =>
  useQuery({
    queryKey: keys.history(placement),
    enabled,
    queryFn: () =>
      dataAs<PlacementHistory>(
        client.GET("/api/placements/{placement_id}/history", path({ placement_id: placement })),
      ),
  });

/** A mutation that makes the given queries stale when it has gone through. */
export function useChange<In, Out>(
  change: (input: In) => Promise<Out>,
  stale: (input: In, out: Out) => readonly (readonly unknown[])[],
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: (out, input) =>
      Promise.all(stale(input, out).map((queryKey) => queries.invalidateQueries({ queryKey }))),
  });
}

export const useSignIn = () =>
  useChange(
    (who: { name: string; password: string } | "demo") =>
      who === "demo"
        ? data(client.POST("/api/session/demo"))
        : data(client.POST("/api/session", { body: who })),
    () => [keys.session],
  );

export const useSignOut = () =>
  useChange(
    () => data(client.DELETE("/api/session")),
    () => [keys.session],
  );

export const useMakeSite = () =>
  useChange(
    (body: Schemas["SiteIn"]) => data(client.POST("/api/sites", { body })),
    () => [keys.sites],
  );

export const useChangeSite = (id: number) =>
  useChange(
    (body: Schemas["SiteChange"]) =>
      dataAs<Site>(client.PUT("/api/sites/{site_id}", { ...path({ site_id: id }), body })),
    () => [keys.site(id), keys.sites, keys.placements(id), keys.frameUses(id)],
  );

export const useFrameUses = (site: number) =>
  useQuery({
    queryKey: keys.frameUses(site),
    queryFn: () => data(client.GET("/api/sites/{site_id}/frames/uses", path({ site_id: site }))),
  });

/**
 * Name a placement's frame, take a named one, or leave it. What is saved at this moment is changed.
 */
export const useChangeFrame = (site: number, placement: number) =>
  useChange(
    async (asked: { name: string } | { frame: string | null }) => {
      const at = path({ placement_id: placement });
      const now = await dataAs<Placement>(client.GET("/api/placements/{placement_id}", at));
      return dataAs<Placement>(
        client.POST("/api/placements/{placement_id}/frame", {
          ...at,
          body: { revision: now.revision, ...asked },
        }),
      );
    },
    () => [keys.site(site), keys.frameUses(site), keys.placements(site)],
  );

/** Widths in a stylesheet, a file of tokens or a table. */
export const useFindWidths = (site: number) =>
  useChange(
    (text: string) =>
      data(
        client.POST("/api/sites/{site_id}/found", { ...path({ site_id: site }), body: { text } }),
      ),
    () => [],
  );

export type FoundWidth = Schemas["FoundWidth"];

/** The plan of a form with some of those widths. */
export const useTakeWidths = (site: number) =>
  useChange(
    ({ plan, chosen }: { plan: SitePlan; chosen: FoundWidth[] }) =>
      data(
        client.POST("/api/sites/{site_id}/found/taken", {
          ...path({ site_id: site }),
          body: { plan, chosen: chosen.map(({ what, px }) => ({ what, px })) },
        }),
      ),
    () => [],
  );

export const useReadAudience = (site: number) =>
  useChange(
    (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return data(
        client.POST("/api/sites/{site_id}/audience/table", {
          ...path({ site_id: site }),
          body: form as never,
          bodySerializer: (body: unknown) => body as FormData,
        }),
      );
    },
    () => [],
  );

export const useImportSite = () =>
  useChange(
    (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return data(
        client.POST("/api/sites/archive", {
          body: form as never,
          bodySerializer: (body: unknown) => body as FormData,
        }),
      );
    },
    () => [keys.sites],
  );

export const useRemoveSite = () =>
  useChange(
    (id: number) => data(client.DELETE("/api/sites/{site_id}", path({ site_id: id }))),
    () => [keys.sites],
  );

export const useMakePage = (site: number) =>
  useChange(
    (title: string) =>
      data(
        client.POST("/api/sites/{site_id}/pages", { ...path({ site_id: site }), body: { title } }),
      ),
    () => [keys.site(site), keys.sites],
  );

export const useRenamePage = (site: number) =>
  useChange(
    ({ id, title }: { id: number; title: string }) =>
      data(client.PUT("/api/pages/{page_id}", { ...path({ page_id: id }), body: { title } })),
    () => [keys.site(site), keys.placements(site)],
  );

export const useRemovePage = (site: number) =>
  useChange(
    (id: number) => data(client.DELETE("/api/pages/{page_id}", path({ page_id: id }))),
    () => [keys.site(site), keys.placements(site), keys.sites, keys.originals(site)],
  );

/** A placement of one picture, as it is made. */
export const placementOf = (name: string, treatments: Treatments): Schemas["Placement"] => ({
  name,
  kind: "picture",
  parts: [{ alt: null, treatments, ladders: {} }],
});

export const useMakePlacement = (site: number) =>
  useChange(
    ({ page, placement }: { page: number; placement: Schemas["Placement"] }) =>
      data(
        client.POST("/api/pages/{page_id}/placements", {
          ...path({ page_id: page }),
          body: { placement },
        }),
      ),
    () => [keys.placements(site), keys.sites, keys.originals(site)],
  );

export const useCopyPlacement = (site: number) =>
  useChange(
    ({ id, ...body }: { id: number; name: string; original?: number }) =>
      data(
        client.POST("/api/placements/{placement_id}/copies", {
          ...path({ placement_id: id }),
          body,
        }),
      ),
    () => [keys.placements(site), keys.sites, keys.originals(site)],
  );

export const useRemovePlacement = (site: number) =>
  useChange(
    (id: number) =>
      data(client.DELETE("/api/placements/{placement_id}", path({ placement_id: id }))),
    () => [keys.placements(site), keys.sites, keys.originals(site)],
  );

export const useDescribeOriginal = (site: number) =>
  useChange(
    ({ id, ...body }: { id: number } & Schemas["OriginalChange"]) =>
      data(client.PATCH("/api/originals/{original_id}", { ...path({ original_id: id }), body })),
    () => [keys.originals(site), keys.placements(site)],
  );

export const useDescribeOriginals = (site: number) =>
  useChange(
    (body: { ids: number[]; alt?: string | null; add_tags?: string[]; drop_tags?: string[] }) =>
      data(
        client.PATCH("/api/sites/{site_id}/originals", {
          ...path({ site_id: site }),
          body: body as Schemas["OriginalsChange"],
        }),
      ),
    () => [keys.originals(site), keys.placements(site)],
  );

export const useRemoveOriginals = (site: number) =>
  useChange(
    (ids: number[]) =>
      data(
        client.POST("/api/sites/{site_id}/originals/removal", {
          ...path({ site_id: site }),
          body: { ids },
        }),
      ),
    () => [keys.originals(site)],
  );

export const useReplaceOriginal = (site: number) =>
  useChange(
    ({ id, file, all_the_same }: { id: number; file: File; all_the_same: boolean }) => {
      const form = new FormData();
      form.append("file", file);
      return data(
        client.POST("/api/originals/{original_id}/replacement", {
          params: { path: { original_id: id }, query: { all_the_same } },
          body: form as never,
          bodySerializer: (body: unknown) => body as FormData,
        }),
      );
    },
    () => [keys.originals(site), keys.placements(site)],
  );

export const useTrimOriginal = (site: number) =>
  useChange(
    ({ id, trim }: { id: number; trim: boolean }) =>
      trim
        ? data(client.POST("/api/originals/{original_id}/trim", path({ original_id: id })))
        : data(client.DELETE("/api/originals/{original_id}/trim", path({ original_id: id }))),
    () => [keys.originals(site), keys.placements(site)],
  );

export const useRemedies = (site: number) =>
  useQuery({
    queryKey: keys.remedies(site),
    queryFn: () =>
      dataAs<FailingSpan[]>(client.GET("/api/sites/{site_id}/remedies", path({ site_id: site }))),
    staleTime: 0,
  });

export const useApplyRemedies = (site: number) =>
  useChange(
    (choices: Schemas["Choice"][]) =>
      data(
        client.POST("/api/sites/{site_id}/remedies", {
          ...path({ site_id: site }),
          body: { choices },
        }),
      ),
    () => [keys.remedies(site), keys.placements(site), keys.sites, keys.originals(site)],
  );

export const useUndoRemedies = (site: number) =>
  useChange(
    (placements: [number, number][]) =>
      data(
        client.POST("/api/sites/{site_id}/remedies/undo", {
          ...path({ site_id: site }),
          body: { placements },
        }),
      ),
    () => [keys.remedies(site), keys.placements(site), keys.sites, keys.originals(site)],
  );

export const useRemoveOriginal = (site: number) =>
  useChange(
    (id: number) => data(client.DELETE("/api/originals/{original_id}", path({ original_id: id }))),
    () => [keys.originals(site)],
  );

export const useNameExamples = (
  site: number,
  naming: SitePlan["naming"],
  titles: string[],
  hashed: boolean,
) =>
  useQuery({
    queryKey: ["names", site, naming, titles, hashed],
    placeholderData: (before) => before,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
    queryFn: () =>
      data(
        client.POST("/api/sites/{site_id}/naming/examples", {
          ...path({ site_id: site }),
          body: { naming, titles, hashed },
        }),
      ),
  });

/** Whole pages: read, laid out, and what shows on them. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { client, data, type Schemas, type Told } from "./client";
import { keys } from "./queries";
import { useRemembered } from "./remembered";

export type PageOnScreen = Told<Schemas["PageOnScreen"]>;
export type PageReading = NonNullable<PageOnScreen["reading"]>;
export type PageLayout = Schemas["LayoutIn"]["layout"];

const of = (page: number) => ({ params: { path: { page_id: page } } });

const keyOf = (page: number) => ["page", page] as const;

/** A page: at once as it was last read, then as it is. */
export const usePage = (id: number) =>
  useRemembered(
    keyOf(id),
    (as_remembered) =>
      data(
        client.GET("/api/pages/{page_id}/reading", {
          params: { path: { page_id: id }, query: { as_remembered } },
        }),
      ) as Promise<PageOnScreen>,
    0,
  );

type Change =
  | { what: "layout"; letter: string; values: NonNullable<PageLayout>[string] | null }
  | { what: "seen"; placement: number; letter: string; shows: boolean }
  | { what: "home"; placement: number }
  | { what: "lead"; placement: number }
  | { what: "leave"; placement: number };

/** A change of a page. What comes back is shown at once. */
export function useChangePage(site: number, id: number) {
  const queries = useQueryClient();
  return useMutation({
    // one after the other: each is laid on what the one before it has become
    scope: { id: `page ${id}` },
    mutationFn: async (change: Change): Promise<PageOnScreen | undefined> => {
      switch (change.what) {
        case "layout": {
          // what the change before it came to
          const now = queries.getQueryData<PageOnScreen>(keyOf(id))?.layout ?? {};
          const { [change.letter]: own, ...rest } = now as NonNullable<PageLayout>;
          const layout = change.values
            ? { ...rest, [change.letter]: { ...own, ...change.values } }
            : rest;
          return (await data(
            client.PUT("/api/pages/{page_id}/layout", { ...of(id), body: { layout } }),
          )) as PageOnScreen;
        }
        case "seen":
          return (await data(
            client.PUT("/api/pages/{page_id}/placements/{placement_id}/spans/{letter}", {
              params: {
                path: { page_id: id, placement_id: change.placement, letter: change.letter },
              },
              body: { shows: change.shows },
            }),
          )) as PageOnScreen;
        case "home":
          return (await data(
            client.POST("/api/pages/{page_id}/homes", {
              ...of(id),
              body: { placement_id: change.placement },
            }),
          )) as PageOnScreen;
        case "lead":
          return (await data(
            client.PUT("/api/pages/{page_id}/lead", {
              ...of(id),
              body: { placement_id: change.placement },
            }),
          )) as PageOnScreen;
        case "leave":
          await data(
            client.DELETE("/api/pages/{page_id}/homes/{placement_id}", {
              params: { path: { page_id: id, placement_id: change.placement } },
            }),
          );
          return undefined;
      }
    },
    onSuccess: (now) => {
      if (now) queries.setQueryData(keyOf(id), now);
      else queries.invalidateQueries({ queryKey: keyOf(id) });
      return queries.invalidateQueries({ queryKey: keys.placements(site) });
    },
  });
}

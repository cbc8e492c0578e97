/** Pictures of the design under a page, and frame rules read off what is drawn on them. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { client, data, dataAs, type Schemas } from "../../../api/client";

export type Design = Schemas["DesignOut"];
export type ReadRule = Schemas["ReadRule"];
export type Seen = Schemas["Seen"];

const key = (page: number) => ["designs", page];
const at = <T>(path: T) => ({ params: { path } });

export const useDesigns = (page: number | undefined) =>
  useQuery({
    queryKey: key(page ?? 0),
    enabled: page !== undefined,
    queryFn: () =>
      dataAs<Design[]>(client.GET("/api/pages/{page_id}/designs", at({ page_id: page ?? 0 }))),
  });

/** What changes the designs of a page; the list is asked for anew. */
export function useDesignChanges(page: number | undefined) {
  const queries = useQueryClient();
  const onSuccess = () => queries.invalidateQueries({ queryKey: key(page ?? 0) });
  const bring = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append("file", file);
      return dataAs<Design>(
        client.POST("/api/pages/{page_id}/designs", {
          ...at({ page_id: page ?? 0 }),
          body: form as never,
          bodySerializer: (body: unknown) => body as FormData,
        }),
      );
    },
    onSuccess,
  });
  const drawnFor = useMutation({
    mutationFn: ({ id, drawn_for }: { id: number; drawn_for: number }) =>
      data(
        client.PATCH("/api/designs/{design_id}", {
          ...at({ design_id: id }),
          body: { drawn_for },
        }),
      ),
    onSuccess,
  });
  const remove = useMutation({
    mutationFn: (id: number) =>
      data(client.DELETE("/api/designs/{design_id}", at({ design_id: id }))),
    onSuccess,
  });
  const putBack = useMutation({
    mutationFn: (id: number) =>
      data(client.POST("/api/designs/{design_id}/back", at({ design_id: id }))),
    onSuccess,
  });
  return { bring, drawnFor, remove, putBack };
}

export const askSpot = (site: number, seen: Seen[]) =>
  dataAs<ReadRule[]>(
    client.POST("/api/sites/{site_id}/spots", {
      ...at({ site_id: site }),
      body: { seen: seen as [Seen, ...Seen[]], gutter_px: 0 },
    }),
  );

export const askLines = (site: number, seen: Seen[]) =>
  dataAs<Schemas["PageLines"]>(
    client.POST("/api/sites/{site_id}/spots/lines", {
      ...at({ site_id: site }),
      body: { seen },
    }),
  );

/**
 * The design that is laid on a page of one width: of those of its span the one that was drawn for
 * the nearest width.
 */
export function designAt(
  designs: readonly Design[],
  letter: string,
  width: number,
): Design | undefined {
  const here = designs.filter((d) => d.letter === letter);
  return here.sort((a, b) => Math.abs(a.drawn_for - width) - Math.abs(b.drawn_for - width))[0];
}

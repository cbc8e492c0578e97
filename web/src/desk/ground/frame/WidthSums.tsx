import { useDebouncedValue } from "@mantine/hooks";
import { useEffect, useState } from "react";
import { client, data, type Schemas } from "../../../api/client";
import { Letter } from "../../../ui/Letter";
import { useDesk, useWork } from "../../context";
import classes from "./Frame.module.css";

/** A width that is said as it is needs no sum. */
const isSum = (s: { text: string }) => s.text.includes("=");

/**
 * How the frame's width comes about at the ends of the chosen span and at the cursor, and how its
 * row adds up.
 */
export function WidthSums() {
  const { span } = useWork();
  const here = useSumHere();
  const ends = span.sums.filter(isSum);
  if (!ends.length && !span.row) return null;
  const sums = here && ends.length ? [...ends.filter((s) => s.at !== here.at), here] : ends;
  return (
    <dl className={classes.sums} aria-label={`How the width in span ${span.letter} comes about`}>
      {sums
        .toSorted((a, b) => a.at - b.at)
        .map((s) => (
          <div key={s.at} data-here={s === here || undefined}>
            <dt>
              <Letter of={span.letter} /> at {s.at}
            </dt>
            <dd>{s.text}</dd>
          </div>
        ))}
      {span.row && (
        <div>
          <dt>
            <Letter of={span.letter} /> row
          </dt>
          <dd>{span.row}</dd>
        </div>
      )}
    </dl>
  );
}

/** A cursor that has not moved for so long rests. */
const REST_MS = 200;

type WidthSum = Schemas["WidthSum"];

/** The sum at the cursor, once it rests; undefined until it is of what stands on the desk. */
function useSumHere(): WidthSum | undefined {
  const { site, placementId, handle, reading, pending, cursor, scrollbar } = useDesk();
  const [at] = useDebouncedValue(cursor, REST_MS);
  const { draft } = handle;
  const { part } = reading;
  const [told, setTold] = useState<{ of: object; sum: WidthSum }>();
  useEffect(() => {
    if (pending !== "nothing") return;
    const abort = new AbortController();
    const { placement, looks } = draft;
    data(
      client.POST("/api/sites/{site_id}/readings/sum", {
        params: { path: { site_id: site.id } },
        body: { placement, placement_id: placementId, looks, part, at, scrollbar_px: scrollbar },
        signal: abort.signal,
      }),
    ).then(
      (sum) => setTold({ of: draft, sum }),
      // the sums at both ends stand all the same
      () => setTold(undefined),
    );
    return () => abort.abort();
  }, [site.id, placementId, draft, part, at, scrollbar, pending]);
  return told?.of === draft && told.sum.at === cursor && isSum(told.sum) ? told.sum : undefined;
}

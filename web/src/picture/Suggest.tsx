/** What may stand out in a picture: offered, never taken unasked. */
import { Button } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { client, dataAs } from "../api/client";
import type { Look } from "../api/queries";
import { plural } from "../ui/format";
import { type Area, added, changed, type Rect } from "./areas";
import classes from "./Picture.module.css";

export interface Suggestion {
  focal: [number, number];
  areas: Rect[];
}

interface Props {
  suggestion: Suggestion;
  look: Look;
  setFocal: (focal: [number, number]) => void;
  setAreas: (areas: Area[]) => void;
  dismiss: () => void;
}

/** What may stand out, once asked for; `failed` says why it cannot be told. */
export function useSuggestion(original: number | undefined) {
  const asking = useMutation({
    mutationFn: async (of: number) => ({
      of,
      found: await dataAs<Suggestion>(
        client.GET("/api/originals/{original_id}/suggestion", {
          params: { path: { original_id: of } },
        }),
      ),
    }),
  });
  return {
    found: asking.data?.of === original ? asking.data?.found : undefined,
    failed: asking.variables === original ? asking.error?.message : undefined,
    ask: () => original !== undefined && asking.mutate(original),
    dismiss: asking.reset,
  };
}

export function SuggestionBar({ suggestion, look, setFocal, setAreas, dismiss }: Props) {
  const take = () =>
    setAreas(
      suggestion.areas.reduce<Area[]>(
        (list, rect) => {
          const next = added(list, "keep", rect);
          return changed(next, next.length - 1, { rect });
        },
        [...(look.areas ?? [])],
      ),
    );
  return (
    <div className={classes.suggestion} role="status">
      <span>
        {suggestion.areas.length
          ? `Stands out: ${plural(suggestion.areas.length, "region")}, dotted on the picture.`
          : "Nothing stands out strongly here."}
      </span>
      <Button size="compact-xs" variant="default" onClick={() => setFocal(suggestion.focal)}>
        Take the focal point
      </Button>
      {suggestion.areas.length > 0 && (
        <Button size="compact-xs" variant="default" onClick={take}>
          Take the {suggestion.areas.length === 1 ? "area" : "areas"}
        </Button>
      )}
      <button type="button" className="plain" onClick={dismiss}>
        dismiss
      </button>
    </div>
  );
}

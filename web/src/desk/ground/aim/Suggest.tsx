/** What may stand out in a picture: offered, never taken unasked. */
import { Button } from "@mantine/core";
import type { Look } from "../../../api/queries";
import { plural } from "../../../ui/format";
import classes from "./Aim.module.css";
import { type Area, added, changed, type Rect } from "./areas";

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

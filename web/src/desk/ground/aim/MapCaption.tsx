/** Under the map: its px size, its areas, the focal point, the safe area. */
import { Popover } from "@mantine/core";
import { AreaList } from "../../../picture/AreaList";
import type { Area } from "../../../picture/areas";
import { plural, size } from "../../../ui/format";
import { setGuides, useGuides } from "../../guides";
import classes from "./Aim.module.css";
import { SafeArea } from "./SafeArea";
import type { Aimed } from "./useAimed";

interface Props {
  aimed: Aimed;
  setAreas: (areas: Area[], group?: string) => void;
  suggest: () => void;
  drawing: boolean;
  draw: (on: boolean) => void;
  openLarge: () => void;
  /** The step whose sentence asked for an area, and the way back to it. */
  back: { to: string; come: () => void } | undefined;
  /** Why the crop in hand stops here, if it does. */
  stops: string | undefined;
}

/** The guides that follow on a press; the safe area is always on the map. */
const NEXT = { none: "centre", safe: "centre", centre: "thirds", thirds: "none" } as const;

export function MapCaption({
  aimed,
  setAreas,
  suggest,
  drawing,
  draw,
  openLarge,
  back,
  stops,
}: Props) {
  const { original, look } = aimed;
  const guides = useGuides();
  const keeps = look.areas.filter((a) => a.kind !== "quiet").length;
  if (stops)
    return (
      <div className={classes.caption}>
        <b>{size(original.width_px, original.height_px)}</b>
        <span className={classes.stopped} role="status">
          {stops}
        </span>
      </div>
    );
  return (
    <div className={classes.caption}>
      <b>{size(original.width_px, original.height_px)}</b>
      <Popover position="top-start" trapFocus shadow="md" width={560}>
        <Popover.Target>
          <button type="button" className="plain">
            {plural(keeps, "keep area")}
          </button>
        </Popover.Target>
        <Popover.Dropdown>
          <AreaList areas={look.areas} set={setAreas} suggest={suggest} />
        </Popover.Dropdown>
      </Popover>
      <button
        type="button"
        className="plain"
        data-spot="draw"
        aria-pressed={drawing}
        onClick={() => draw(!drawing)}
      >
        {drawing ? "drag on the picture…" : "draw one"}
      </button>
      {back && (
        <button type="button" className="plain" onClick={back.come}>
          back to {back.to}
        </button>
      )}
      <button type="button" className="plain" onClick={openLarge}>
        large
      </button>
      <button
        type="button"
        className="plain"
        title="Lines over what shows, in the map and in every pane: centre, thirds, none"
        onClick={() => setGuides({ lines: NEXT[guides.lines] })}
      >
        {guides.lines === "centre" || guides.lines === "thirds" ? guides.lines : "guides"}
      </button>
      <span>
        focal {Math.round(look.focal[0] * 100)} · {Math.round(look.focal[1] * 100)}
      </span>
      <span className={classes.last}>
        <SafeArea original={original} />
      </span>
    </div>
  );
}

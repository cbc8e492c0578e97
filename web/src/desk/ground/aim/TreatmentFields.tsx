/**
 * What the chosen span does: what shows, which original, crop, areas, fit, aim, and what its files
 * carry.
 */
import { SegmentedControl } from "@mantine/core";
import type { RefObject } from "react";
import { useWork } from "../../context";
import { FIELDS } from "../../kinds/fields";
import { Field } from "../Field";
import field from "../Field.module.css";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import classes from "./Aim.module.css";
import { AimField } from "./AimField";
import { Behind } from "./Behind";
import { Colour } from "./Colour";
import { CropAll } from "./CropAll";
import { CropField } from "./CropField";
import { Instead } from "./Instead";
import { KeepsField } from "./KeepsField";
import { OriginalChooser } from "./OriginalChooser";
import { useAimed } from "./useAimed";
import type { InHand } from "./useCropping";

interface Props {
  openFiles: RefObject<(() => void) | null>;
  inHand: InHand;
}

export function TreatmentFields({ openFiles, inHand }: Props) {
  const { span, bringing, reading, handle, ofAll, setOfAll } = useWork();
  const n = reading.items?.items.length ?? 0;
  const { aimed, set } = useAimed();
  const shows = span.effective.show;
  return (
    <div className={ground.column} style={{ flex: "1 1 400px" }}>
      <SpanHead />
      {n > 1 && (
        <div className={field.field}>
          <div className={field.label}>Items</div>
          <div className={field.control}>
            <SegmentedControl
              size="xs"
              aria-label="Whose values are set"
              value={ofAll ? "all" : "one"}
              onChange={(v) => setOfAll(v === "all")}
              data={[
                { value: "one", label: "this one" },
                { value: "all", label: `all ${n}` },
              ]}
            />
          </div>
        </div>
      )}
      <Field field="show" label="Shows">
        <SegmentedControl
          size="xs"
          aria-label="What shows"
          value={shows}
          onChange={(show) => set({ show: show as "picture" | "colour" | "nothing" })}
          data={["picture", "colour", "nothing"]}
        />
        {shows === "colour" && <Colour set={set} label="the frame" />}
      </Field>
      {shows === "picture" && !ofAll && (
        <>
          <Field field="original" label="Original">
            <span className={classes.file}>{aimed?.original.name ?? "none"}</span>
            <OriginalChooser
              give={(id, look) => bringing.give(span.letter, id, look)}
              bring={() => openFiles.current?.()}
              label="Change…"
            />
          </Field>
          {aimed && (
            <>
              <CropField inHand={inHand} original={aimed.original} set={set} />
              <KeepsField areas={aimed.look.areas} set={set} />
            </>
          )}
        </>
      )}
      {!ofAll && !FIELDS[handle.draft.placement.kind]?.ownInstead && (
        <Instead openFiles={openFiles} />
      )}
      {shows === "picture" && ofAll && <CropAll />}
      {shows === "picture" && (
        <>
          {!FIELDS[handle.draft.placement.kind]?.whole && (
            <>
              <Field field="fit" label="Fit">
                <SegmentedControl
                  size="xs"
                  aria-label="Fit"
                  value={span.effective.fit}
                  onChange={(fit) => set({ fit: fit as "cover" | "contain" })}
                  data={["cover", "contain"]}
                />
              </Field>
              {(span.effective.fit === "contain" || aimed?.original.alpha) && <Behind set={set} />}
              <AimField set={set} />
            </>
          )}
          <Field field="whole" label="Files carry">
            <SegmentedControl
              size="xs"
              aria-label="What the files carry"
              value={span.effective.whole ? "whole" : "cut"}
              onChange={(v) => set({ whole: v === "whole" })}
              data={[
                { value: "cut", label: "what shows" },
                { value: "whole", label: "the whole" },
              ]}
            />
          </Field>
        </>
      )}
    </div>
  );
}

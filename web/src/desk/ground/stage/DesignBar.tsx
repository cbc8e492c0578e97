/** The design under the stage: brought, told its width, seen through, and drawn on. */
import { Button, FileButton, SegmentedControl, Slider } from "@mantine/core";
import { useState } from "react";
import { NumberField } from "../../../ui/NumberField";
import type { Design } from "./designs";
import { useDesignChanges } from "./designs";
import classes from "./Stage.module.css";
import type { Lies, useOverlay } from "./useOverlay";

const TAKEN = "image/png,image/jpeg,image/webp,image/avif";

interface Props {
  page: number | undefined;
  design: Design | undefined;
  /** Those of other spans, and of none. */
  others: readonly Design[];
  overlay: ReturnType<typeof useOverlay>;
  drawing: boolean;
  draw: () => void;
}

export function DesignBar({ page, design, others, overlay, drawing, draw }: Props) {
  const { bring, drawnFor, remove, putBack } = useDesignChanges(page);
  const [gone, setGone] = useState<Design>();
  const problem = bring.error ?? drawnFor.error ?? remove.error ?? putBack.error;
  const note = others.find((d) => d.note)?.note;
  const { lies, setLies, share, setShare } = overlay;
  return (
    <>
      {design && (
        <>
          <span className={classes.design} title={design.name}>
            {design.name}
          </span>
          <NumberField
            label="Width that the design was drawn for"
            before="for"
            unit="px"
            late
            value={design.drawn_for}
            set={(drawn_for) => drawnFor.mutate({ id: design.id, drawn_for })}
          />
          <SegmentedControl
            size="xs"
            aria-label="How the design lies"
            value={lies}
            onChange={(value) => setLies(value as Lies)}
            data={["off", "under", "over", "wipe", "difference"]}
          />
          {lies !== "off" && lies !== "difference" && (
            <Slider
              className={classes.share}
              size="sm"
              label={null}
              thumbLabel={lies === "wipe" ? "How far it is wiped away" : "How much of it is seen"}
              value={share}
              onChange={setShare}
            />
          )}
          <button type="button" className="plain" aria-pressed={drawing} onClick={draw}>
            {drawing ? "stop drawing" : "draw a spot"}
          </button>
          <button
            type="button"
            className="plain"
            onClick={() => remove.mutate(design.id, { onSuccess: () => setGone(design) })}
          >
            remove
          </button>
        </>
      )}
      <FileButton
        accept={TAKEN}
        onChange={(file) => file && bring.mutate(file, { onSuccess: () => setGone(undefined) })}
      >
        {(props) => (
          <Button {...props} size="compact-xs" variant="default" loading={bring.isPending}>
            {design ? "another…" : "the design of this width…"}
          </Button>
        )}
      </FileButton>
      {gone && gone.id !== design?.id && (
        <button
          type="button"
          className="plain"
          onClick={() => putBack.mutate(gone.id, { onSuccess: () => setGone(undefined) })}
        >
          put {gone.name} back
        </button>
      )}
      {(problem || note) && <strong role="alert">{problem ? problem.message : note}</strong>}
      {!design &&
        others
          .filter((d) => d.note)
          .map((d) => (
            <NumberField
              key={d.id}
              label={`Width that ${d.name} was drawn for`}
              before={d.name}
              unit="px"
              late
              value={d.drawn_for}
              set={(drawn_for) => drawnFor.mutate({ id: d.id, drawn_for })}
            />
          ))}
    </>
  );
}

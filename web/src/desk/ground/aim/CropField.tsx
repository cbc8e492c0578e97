/** The crop of a span: a rectangle of the original, shown in px against what the frames need. */
import { Button, Checkbox, Popover, SegmentedControl } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Original, Treatment } from "../../../api/queries";
import type { Rect } from "../../../picture/areas";
import { fitted, UNCROPPED } from "../../../picture/crop";
import { size } from "../../../ui/format";
import { NumberField } from "../../../ui/NumberField";
import { useDesk } from "../../context";
import { Field } from "../Field";
import ground from "../Ground.module.css";
import { type InHand, type Lock, useLimits } from "./useCropping";

interface Props {
  inHand: InHand;
  original: Original;
  set: (values: Treatment, group?: string) => void;
}

export function CropField({ inHand: { cropping, change }, original, set }: Props) {
  const { span, density } = useDesk();
  const [opened, { toggle, close }] = useDisclosure();
  const { facts, ratio, least, density: sharpAt } = useLimits(cropping, original);
  const crop = span.effective.crop ?? UNCROPPED;
  const need = facts?.needs.find((n) => n.density === density) ?? facts?.needs[0];
  const cut = crop.w < 1 || crop.h < 1;
  const soft = need && facts && facts.width_px < need.width_px;
  const px = facts && { x: facts.x, y: facts.y, w: facts.width_px, h: facts.height_px };
  const typed = (side: "x" | "y" | "w" | "h", value: number) => {
    if (!px) return;
    const [w, h] = [original.width_px, original.height_px];
    const next = {
      x: px.x / w,
      y: px.y / h,
      w: crop.w,
      h: crop.h,
      [side]: value / (side === "x" || side === "w" ? w : h),
    };
    const isLess = (side === "w" && next.w < least.w) || (side === "h" && next.h < least.h);
    if (side === "w") next.w = Math.max(next.w, least.w);
    if (side === "h") next.h = Math.max(next.h, least.h);
    if (ratio && (side === "w" || side === "h")) {
      if (side === "h") next.w = next.h / ratio;
      next.w = Math.min(next.w, 1, 1 / ratio);
      next.h = next.w * ratio;
    }
    change({ stopped: isLess });
    set({ crop: fitted(next) }, `crop typed ${span.letter}`);
  };
  return (
    <Field field="crop" label="Crop">
      <Popover
        opened={opened}
        onChange={(o) => !o && close()}
        position="top-start"
        shadow="md"
        trapFocus
        width={400}
      >
        <Popover.Target>
          <Button
            size="compact-xs"
            variant={cropping.on ? "filled" : "default"}
            onClick={toggle}
            aria-expanded={opened}
          >
            {cut ? "Crop…" : "None…"}
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={ground.stack}>
            <span>
              The largest crop of a ratio that holds all areas, nearest to the focal point:
            </span>
            <div style={{ display: "flex", flexWrap: "wrap", gap: 6 }}>
              {facts?.largest.map((c) => (
                <Button
                  key={c.name}
                  variant="default"
                  size="compact-xs"
                  disabled={!c.rect}
                  title={c.rect ? undefined : c.why_not}
                  onClick={() => {
                    set({ crop: c.rect as Rect });
                    change({ on: true, lock: "crop" });
                  }}
                >
                  {c.name}
                </Button>
              ))}
            </div>
            {facts?.largest.some((c) => !c.rect) && (
              <span className="soft">
                Not{" "}
                {facts.largest
                  .filter((c) => !c.rect)
                  .map((c) => c.name)
                  .join(", ")}
                : {facts.largest.find((c) => !c.rect)?.why_not}
              </span>
            )}
            {px && (
              <div style={{ display: "flex", flexWrap: "wrap", gap: 8 }}>
                <NumberField
                  late
                  label="Crop from the left"
                  before="x"
                  unit=""
                  value={px.x}
                  set={(v) => typed("x", v)}
                />
                <NumberField
                  late
                  label="Crop from the top"
                  before="y"
                  unit=""
                  value={px.y}
                  set={(v) => typed("y", v)}
                />
                <NumberField
                  late
                  label="Crop width"
                  before="w"
                  unit=""
                  value={px.w}
                  set={(v) => typed("w", v)}
                />
                <NumberField
                  late
                  label="Crop height"
                  before="h"
                  unit="px"
                  value={px.h}
                  set={(v) => typed("h", v)}
                />
              </div>
            )}
            {cropping.stopped && sharpAt && (
              <span role="status">Smaller it is soft at {sharpAt}x: allow that first.</span>
            )}
            <div style={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 12 }}>
              <SegmentedControl
                size="xs"
                aria-label="Ratio of the crop"
                value={cropping.lock}
                onChange={(v) => change({ lock: v as Lock, stopped: false })}
                data={[
                  {
                    value: "frame",
                    label: facts?.held ? `the frame's, ${ratioSaid(facts.held)}` : "the frame's",
                  },
                  { value: "crop", label: "as it is" },
                  { value: "free", label: "free" },
                ]}
              />
              <Checkbox
                size="xs"
                label="may be soft"
                checked={cropping.maySoft}
                onChange={(e) => change({ maySoft: e.currentTarget.checked, stopped: false })}
              />
            </div>
            <div style={{ display: "flex", gap: 8 }}>
              <Button
                onClick={() => {
                  change({ on: !cropping.on, stopped: false });
                  close();
                }}
              >
                {cropping.on ? "Done on the picture" : "Draw it on the picture"}
              </Button>
              <Button
                variant="default"
                disabled={!cut}
                onClick={() => {
                  set({ crop: UNCROPPED });
                  change({ on: false, stopped: false });
                }}
              >
                No crop here
              </Button>
            </div>
          </div>
        </Popover.Dropdown>
      </Popover>
      {cropping.on && (
        <button
          type="button"
          className="plain"
          onClick={() => change({ on: false, stopped: false })}
        >
          done
        </button>
      )}
      {facts && need && (
        <span data-soft={soft || undefined} className={ground.against}>
          {size(facts.width_px, facts.height_px)}, needs {need.width_px} at {need.density}x
          {soft &&
            `: soft, ${(facts.width_px / need.width_px).toFixed(2)}×; sharp up to ${need.sharp_to_px} px`}
        </span>
      )}
    </Field>
  );
}

const ratioSaid = ({ ratio, is_one }: { ratio: number; is_one: boolean }) =>
  `${is_one ? "" : "about "}${Number(ratio.toFixed(2))} : 1`;

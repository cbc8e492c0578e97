/** The crop of a span: a rectangle of the original, shown in px against what the frames need. */
import { Button, Checkbox, Popover, SegmentedControl } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Treatment } from "../../../api/queries";
import type { Rect } from "../../../picture/areas";
import { fitted, UNCROPPED } from "../../../picture/crop";
import { size } from "../../../ui/format";
import { NumberField } from "../../../ui/NumberField";
import { useDesk } from "../../context";
import { Field } from "../Field";
import ground from "../Ground.module.css";

export type Lock = "ratio" | "free";

export interface Cropping {
  on: boolean;
  lock: Lock;
  maySoft: boolean;
}

interface Props {
  cropping: Cropping;
  setCropping: (c: Cropping) => void;
  original: { width_px: number; height_px: number };
  set: (values: Treatment, group?: string) => void;
}

export function CropField({ cropping, setCropping, original, set }: Props) {
  const { span, reading, density } = useDesk();
  const [opened, { toggle, close }] = useDisclosure();
  const facts = reading.detail?.letter === span.letter ? reading.detail.crop : undefined;
  const crop = span.effective.crop ?? UNCROPPED;
  const need = facts?.needs.find((n) => n.density === density) ?? facts?.needs[0];
  const cut = crop.w < 1 || crop.h < 1;
  const soft = need && facts && facts.width_px < need.width_px;
  const px = facts && { x: facts.x, y: facts.y, w: facts.width_px, h: facts.height_px };
  const typed = (side: "x" | "y" | "w" | "h", value: number) => {
    if (!px) return;
    const next = { ...px, [side]: value };
    if (side === "w" && cropping.lock === "ratio") next.h = (value * px.h) / px.w;
    if (side === "h" && cropping.lock === "ratio") next.w = (value * px.w) / px.h;
    const { width_px: w, height_px: h } = original;
    set({ crop: fitted({ x: next.x / w, y: next.y / h, w: next.w / w, h: next.h / h }) }, `crop typed ${span.letter}`);
  };
  return (
    <Field field="crop" label="Crop">
      <Popover opened={opened} onChange={(o) => !o && close()} position="top-start" shadow="md" trapFocus width={400}>
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
            <span>The largest crop of a ratio that holds all areas, nearest to the focal point:</span>
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
                    setCropping({ ...cropping, on: true, lock: "ratio" });
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
                <NumberField label="Crop from the left" before="x" unit="" value={px.x} set={(v) => typed("x", v)} />
                <NumberField label="Crop from the top" before="y" unit="" value={px.y} set={(v) => typed("y", v)} />
                <NumberField label="Crop width" before="w" unit="" value={px.w} set={(v) => typed("w", v)} />
                <NumberField label="Crop height" before="h" unit="px" value={px.h} set={(v) => typed("h", v)} />
              </div>
            )}
            <div style={{ display: "flex", alignItems: "center", gap: 12 }}>
              <SegmentedControl
                size="xs"
                aria-label="Ratio of the crop"
                value={cropping.lock}
                onChange={(v) => setCropping({ ...cropping, lock: v as Lock })}
                data={[
                  { value: "ratio", label: "ratio held" },
                  { value: "free", label: "free" },
                ]}
              />
              <Checkbox
                size="xs"
                label="may be soft"
                checked={cropping.maySoft}
                onChange={(e) => setCropping({ ...cropping, maySoft: e.currentTarget.checked })}
              />
            </div>
            <div style={{ display: "flex", gap: 8 }}>
              <Button
                onClick={() => {
                  setCropping({ ...cropping, on: !cropping.on });
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
                  setCropping({ ...cropping, on: false });
                }}
              >
                No crop here
              </Button>
            </div>
          </div>
        </Popover.Dropdown>
      </Popover>
      {cropping.on && (
        <button type="button" className="plain" onClick={() => setCropping({ ...cropping, on: false })}>
          done
        </button>
      )}
      {facts && need && (
        <span data-soft={soft || undefined} className={ground.against}>
          {size(facts.width_px, facts.height_px)}, needs {need.width_px} at {need.density}x
          {soft && `: soft, ${(facts.width_px / need.width_px).toFixed(2)}×`}
        </span>
      )}
    </Field>
  );
}

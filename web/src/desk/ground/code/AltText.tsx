import { Checkbox, SegmentedControl, Textarea } from "@mantine/core";
import { Link } from "react-router";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import ground from "../Ground.module.css";

/**
 * What the picture shows, in words; and whether the first screen shows it, which decides how it
 * loads.
 */
export function AltText() {
  const { handle, reading, originals, site } = useWork();
  const { placement } = handle.draft;
  const widest = originals.find(
    (o) => o.id === reading.spans[reading.spans.length - 1]?.effective.original,
  );
  const own = partOf(handle.draft, handle.part).alt ?? undefined;
  const set = (values: Partial<typeof placement>, group?: string) =>
    handle.change((d) => ({ ...d, placement: { ...d.placement, ...values } }), group);
  const text = own ?? widest?.alt ?? "";
  return (
    <div className={ground.card} data-spot="alt">
      <Textarea
        label="Alt text"
        size="xs"
        autosize
        minRows={2}
        maxRows={4}
        value={text}
        disabled={own === ""}
        placeholder={own === "" ? "decorative on purpose" : "What does it show?"}
        onChange={(e) => handle.setPart({ alt: e.currentTarget.value || null }, "alt")}
        description={
          own === undefined
            ? widest?.alt != null
              ? "from the original"
              : undefined
            : "of this placement"
        }
      />
      <Checkbox
        mt={8}
        size="xs"
        label="Decorative on purpose"
        checked={own === "" || (own === undefined && widest?.alt === "")}
        onChange={(e) => handle.setPart({ alt: e.currentTarget.checked ? "" : null })}
      />
      <SegmentedControl
        mt={10}
        size="xs"
        fullWidth
        aria-label="Loading"
        value={placement.lead === false ? "lazy" : "lead"}
        onChange={(v) => set({ lead: v === "lead" })}
        data={[
          { value: "lead", label: "on the first screen" },
          { value: "lazy", label: "further down" },
        ]}
      />
      <p style={{ margin: "10px 0 0", fontSize: 12 }} className="soft">
        Conditions in the style <code>{site.plan.media_style}</code>, set for the whole{" "}
        <Link to={`/sites/${site.id}/settings`}>site</Link>.
      </p>
    </div>
  );
}

import { Checkbox, Select } from "@mantine/core";
import type { PlacementBody, SitePlan } from "../../../api/queries";
import { FORMATS } from "../../../ui/format";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import classes from "./Files.module.css";

export const LISTS = {
  fitting: "fitting the frame",
  widths: "by width",
  densities: "by density",
} as const;

const SITE = "site";
const CHOICES = ["avif", "webp", "jpeg"] as const;

/**
 * How this placement's files are offered to browsers and in which formats, if not as the site has
 * it.
 */
export function Offered() {
  const { site, handle } = useWork();
  const { lists, formats } = handle.draft.placement;
  const set = (values: Partial<PlacementBody>) => handle.change((d) => withPlacement(d, values));
  return (
    <>
      <div className={classes.offered}>
        <span>Offered</span>
        <Select
          aria-label="How files are offered"
          value={lists ?? SITE}
          allowDeselect={false}
          data={[
            { value: SITE, label: `as the site: ${LISTS[site.plan.lists]}` },
            ...Object.entries(LISTS).map(([value, label]) => ({ value, label })),
          ]}
          onChange={(value) =>
            value && set({ lists: value === SITE ? null : (value as SitePlan["lists"]) })
          }
          style={{ flex: 1 }}
        />
      </div>
      <div className={classes.offered}>
        <span>Formats</span>
        <Checkbox.Group
          aria-label="Formats of this placement"
          value={formats ?? site.plan.formats}
          onChange={(v) => set({ formats: v as SitePlan["formats"] })}
        >
          <div className={classes.formats}>
            {CHOICES.map((f) => (
              <Checkbox key={f} size="xs" value={f} label={FORMATS[f]} disabled={f === "jpeg"} />
            ))}
          </div>
        </Checkbox.Group>
        {formats && (
          <button type="button" className="plain" onClick={() => set({ formats: null })}>
            as the site
          </button>
        )}
      </div>
    </>
  );
}

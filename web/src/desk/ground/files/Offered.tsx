import { Select } from "@mantine/core";
import type { PlacementBody } from "../../../api/queries";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import classes from "./Files.module.css";

export const LISTS = {
  fitting: "fitting the frame",
  widths: "by width",
  densities: "by density",
} as const;

const SITE = "site";

/** How this placement's files are offered to browsers, if not as the site has it. */
export function Offered() {
  const { site, handle } = useWork();
  const { lists } = handle.draft.placement;
  const set = (value: string) =>
    handle.change((d) =>
      withPlacement(d, { lists: value === SITE ? null : (value as NonNullable<PlacementBody["lists"]>) }),
    );
  return (
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
        onChange={(value) => value && set(value)}
        style={{ flex: 1 }}
      />
    </div>
  );
}

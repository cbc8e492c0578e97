/** The container that what was drawn on a page's designs shares, to be the site's. */
import { useQuery } from "@tanstack/react-query";
import { useChangeSite } from "../../../api/queries";
import { useWork } from "../../context";
import { askLines, type Seen } from "./designs";
import classes from "./Stage.module.css";

export function PageLines({ seen }: { seen: Seen[] }) {
  const { site } = useWork();
  const change = useChangeSite(site.id);
  const { data: lines } = useQuery({
    queryKey: ["lines", site.id, site.revision, JSON.stringify(seen)],
    queryFn: () => askLines(site.id, seen),
  });
  const { container } = site.plan;
  const found = lines?.container;
  if (!lines || !found) return null;
  const isSame =
    found.max_width_px === container.max_width_px && found.margin_px === container.margin_px;
  if (isSame) return null;
  const columns = lines.columns ? `, ${lines.columns} columns` : "";
  const gutter = lines.gutter_px ? ` with a gutter of ${lines.gutter_px} px` : "";
  return (
    <div className={classes.first}>
      <span>
        What was drawn shares a container of {found.max_width_px} px, {found.margin_px} px from the
        edges{columns}
        {gutter}. The site's is {container.max_width_px} px.
      </span>
      <button
        type="button"
        className={classes.pick}
        disabled={change.isPending}
        onClick={() =>
          change.mutate({
            name: site.name,
            revision: site.revision,
            plan: { ...site.plan, container: found },
          })
        }
      >
        make it the site's
      </button>
      {change.error && <strong role="alert">{change.error.message}</strong>}
    </div>
  );
}

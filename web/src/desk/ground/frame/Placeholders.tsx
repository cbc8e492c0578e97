import { useWork } from "../../context";
import classes from "./Frame.module.css";

/** Stand-ins for what is still missing, to lay the page out with. */
export function Placeholders() {
  const { reading, placementId, handle } = useWork();
  if (!reading.brief) return null;
  const address = (kind: string) =>
    `/api/placements/${placementId}/placeholders/${kind}?part=${handle.part}`;
  return (
    <p className={classes.hint}>
      {reading.brief.spans.join(", ")} wait{reading.brief.spans.length === 1 ? "s" : ""} for a
      picture. Stand-ins of the same px: <a href={address("svg")}>SVG</a> ·{" "}
      <a href={address("png")}>PNG</a>
    </p>
  );
}

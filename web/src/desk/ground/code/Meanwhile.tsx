/** What is seen until pictures are there, and where they do not come: the same for all of them. */
import { SegmentedControl } from "@mantine/core";
import { useOriginals } from "../../../api/queries";
import { bytes } from "../../../ui/format";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import { OriginalWall } from "../../OriginalWall";
import ground from "../Ground.module.css";
import classes from "./Code.module.css";

export function Meanwhile() {
  const { handle, reading, site } = useWork();
  const { blurred, substitute } = handle.draft.placement;
  const { behind } = reading.code;
  const name = useOriginals(site.id).data?.find((o) => o.id === substitute)?.name;
  return (
    <div className={ground.card} data-spot="meanwhile">
      <div className={classes.written}>
        <span>Until it is there</span>
      </div>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Until it is there"
        value={blurred ? "blurred" : "colour"}
        onChange={(v) =>
          handle.change((draft) => withPlacement(draft, { blurred: v === "blurred" }))
        }
        data={[
          { value: "colour", label: "its colour" },
          { value: "blurred", label: "blurred" },
        ]}
      />
      {behind && (
        <p className={classes.why}>
          {behind.all_bytes > 0
            ? `${bytes(behind.all_bytes)} of the style sheet, ${bytes(behind.most_bytes)} the most of one.`
            : "No picture here can be blurred."}
          {behind.without.length > 0 &&
            ` Not of ${behind.without.slice(0, 3).join(", ")}${behind.without.length > 3 ? " …" : ""}: what can be seen through would show it for good, and a drawing is there as soon.`}
        </p>
      )}
      <div className={`${classes.written} ${classes.next}`}>
        <span>If it does not come</span>
        {substitute != null && (
          <button
            type="button"
            className="plain"
            onClick={() => handle.change((draft) => withPlacement(draft, { substitute: null }))}
          >
            alt text alone
          </button>
        )}
      </div>
      <p className={classes.why}>
        {substitute == null
          ? "Its alt text stands on the colour."
          : `${name ?? "Another picture"} shows, put there by a line of script.`}
      </p>
      <OriginalWall
        label={substitute == null ? "Show another picture" : "Another one"}
        isChosen={(id) => id === substitute}
        choose={(o, close) => {
          handle.change((draft) => withPlacement(draft, { substitute: o.id }));
          close();
        }}
      />
    </div>
  );
}

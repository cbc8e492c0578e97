/** In which way the part is written, and why; and what that costs. */
import { SegmentedControl } from "@mantine/core";
import type { Schemas } from "../../../api/client";
import { useWork } from "../../context";
import { partOf, withPart } from "../../draft";
import ground from "../Ground.module.css";
import classes from "./Code.module.css";

type Way = Schemas["WayReading"]["way"];

const WAYS: { value: Way; label: string }[] = [
  { value: "img", label: "img" },
  { value: "picture", label: "picture" },
  { value: "background", label: "background" },
  { value: "svg", label: "svg" },
];

export function Written() {
  const { handle, reading } = useWork();
  // what shows under conditions is written as what it stands in for
  const place = reading.parts[handle.part]?.place ?? handle.part;
  const told = reading.code.ways[place];
  if (!told) return null;
  const part = partOf(handle.draft, place);
  const isDrawing = reading.files.some((f) => f.part === place && f.formats[0]?.format === "svg");
  const set = (way: Way | null) => {
    // a background is decoration: nobody is told of it
    const was = told.way === "background" && part.alt === "";
    const alt = way === "background" && part.alt == null ? "" : was ? null : part.alt;
    handle.change((draft) => withPart(draft, place, { way, alt }));
  };
  // of a picture it has been said why an img alone does not do
  const reasons = WAYS.filter(
    ({ value }) =>
      told.cannot[value] &&
      !(value === "img" && told.way === "picture") &&
      // of what is no drawing nobody asks
      !(value === "svg" && !isDrawing),
  );
  return (
    <div className={ground.card} data-spot="way">
      <div className={classes.written}>
        <span>Written as</span>
        {part.way && (
          <button type="button" className="plain" onClick={() => set(null)}>
            as little as needed
          </button>
        )}
      </div>
      <SegmentedControl
        size="xs"
        fullWidth
        aria-label="Written as"
        value={told.way}
        onChange={(v) => set(v as Way)}
        data={WAYS.filter((w) => w.value !== "svg" || isDrawing || part.way === "svg").map((w) => ({
          ...w,
          disabled: Boolean(told.cannot[w.value]),
        }))}
      />
      <p className={classes.why}>{told.why}</p>
      {told.costs.length > 0 && (
        <ul className={classes.costs}>
          {told.costs.map((cost) => (
            <li key={cost}>{cost}</li>
          ))}
        </ul>
      )}
      {reasons.map(({ value }) => (
        <p key={value} className={`${classes.why} soft`}>
          {told.cannot[value]}
        </p>
      ))}
    </div>
  );
}

import { range, size } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useWork } from "../../context";
import { valueAt } from "../../scale";
import ground from "../Ground.module.css";
import classes from "./Frame.module.css";
import { describeHeight, describeWidth } from "./words";

/** Every span with its rules and what comes of them at both of its ends. */
export function SpanTable() {
  const { reading, span, choose } = useWork();
  return (
    <table className={ground.table}>
      <thead>
        <tr>
          <th>Span</th>
          <th>Width</th>
          <th>Height</th>
          <th className={ground.right}>Frame, narrow end</th>
          <th className={ground.right}>wide end</th>
        </tr>
      </thead>
      <tbody>
        {reading.spans.map((s) => (
          <tr
            key={s.letter}
            aria-selected={s.letter === span.letter}
            data-press
            onClick={() => choose(s.letter)}
          >
            <td>
              <button type="button" className={classes.span} onClick={() => choose(s.letter)}>
                <Letter of={s.letter} /> {range(s.first, s.last, reading.widest)}
              </button>
            </td>
            <td className={s.own.includes("width") ? classes.own : "soft"}>
              {describeWidth(s.effective.width)}
            </td>
            <td className={s.own.includes("height") ? classes.own : "soft"}>
              {describeHeight(s.effective.height)}
            </td>
            <td className={`${ground.right} num`}>
              {size(valueAt(s.frame_w, s.first) ?? 0, valueAt(s.frame_h, s.first) ?? 0)}
            </td>
            <td className={`${ground.right} num`}>
              {size(valueAt(s.frame_w, s.last) ?? 0, valueAt(s.frame_h, s.last) ?? 0)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

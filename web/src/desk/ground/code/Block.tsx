/**
 * A text of code: every line bears the letters of its spans, lights the widths at which it wins, and is
 * marked where the cursor is at one of them.
 */
import { type CSSProperties, useEffect, useMemo } from "react";
import type { Schemas } from "../../../api/client";
import { spanColour } from "../../../ui/Letter";
import { useDesk } from "../../context";
import classes from "./Code.module.css";
import { Copy } from "./Copy";
import { isAmong, winner } from "./wins";

/** By how many signs a line stands in. What of it does not fit beside goes on below, further in. */
const indentOf = (text: string) => text.length - text.trimStart().length;

export function Block({
  title,
  lines,
  text,
}: {
  title: string;
  lines: Schemas["CodeLine"][];
  text: string;
}) {
  const { light, reading, density, cursor } = useDesk();
  const wins = useMemo(() => lines.map(winner(reading, density)), [lines, reading, density]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once it is gone
  useEffect(() => () => light([]), []);
  return (
    <figure className={classes.block}>
      <figcaption>
        <code>{title}</code>
        <Copy text={text} />
      </figcaption>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: long code is scrolled by keyboard */}
      <pre tabIndex={0} onPointerLeave={() => light([])}>
        {lines.map((line, i) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place
            key={i}
            className={classes.line}
            onPointerEnter={() => light(wins[i] ?? [])}
            data-chosen={(line.spans?.length > 0 && isAmong(cursor, wins[i] ?? [])) || undefined}
            style={{ "--indent": `${indentOf(line.text)}ch` } as CSSProperties}
          >
            <i aria-hidden="true">
              {line.spans?.map((s) => (
                <b key={s} style={{ background: spanColour(s) }}>
                  {s}
                </b>
              ))}
            </i>
            <span>
              {line.text}
              {"\n"}
            </span>
          </span>
        ))}
        {lines.length === 0 && "Nothing to hand over as long as there is no picture."}
      </pre>
    </figure>
  );
}

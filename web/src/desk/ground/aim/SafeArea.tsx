/** The safe area of the chosen span and of all spans, to take along as an overlay or as numbers. */
import { CopyButton, Popover } from "@mantine/core";
import type { Original, SpanReading } from "../../../api/queries";
import { percent } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useWork } from "../../context";
import ground from "../Ground.module.css";

type SafePx = SpanReading["safe_px"];

export function SafeArea({ original }: { original: Original }) {
  const { span, reading } = useWork();
  const overall = reading.safe.find((s) => s.original === original.id);
  return (
    <Popover position="top-end" shadow="md" trapFocus width={420}>
      <Popover.Target>
        <button type="button" className="plain">
          {span.safe
            ? `safe ${Math.round(span.safe.w * 100)} × ${percent(span.safe.h)}`
            : `nothing always shows in ${span.letter}`}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={ground.stack}>
          <span>
            In view at every width. Saved changes only; lay the overlay over the picture in any
            program.
          </span>
          <One letters={[span.letter]} px={span.safe_px} query={`span=${span.letter}`} />
          {overall && overall.spans.length > 1 && (
            <One letters={overall.spans} px={overall.safe_px} query={`original=${original.id}`} />
          )}
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

/** `px`: the edges x0, x1, y0, y1 of what is safe. */
function One({ letters, px, query }: { letters: readonly string[]; px: SafePx; query: string }) {
  const { placementId } = useWork();
  const said = px
    ? `x ${px[0]} to ${px[1]}, y ${px[2]} to ${px[3]} px`
    : "nothing is in view at every width";
  return (
    <div style={{ display: "flex", gap: 8, alignItems: "center", flexWrap: "wrap" }}>
      {letters.map((l) => (
        <Letter key={l} of={l} small />
      ))}
      <span className="num">{said}</span>
      <Links placement={placementId} query={query} />
      {px && (
        <CopyButton value={said}>
          {({ copied, copy }) => (
            <button type="button" className="plain" onClick={copy}>
              {copied ? "copied" : "copy"}
            </button>
          )}
        </CopyButton>
      )}
    </div>
  );
}

export function Links({ placement, query }: { placement: number; query: string }) {
  return (["svg", "png"] as const).map((kind) => (
    <a key={kind} href={`/api/placements/${placement}/safe-area/${kind}?${query}`} download>
      {kind.toUpperCase()}
    </a>
  ));
}

/** What a picture has to look like that is not there yet. */
export function BriefNote() {
  const { reading, placementId } = useWork();
  const { brief } = reading;
  if (!brief) return null;
  const { safe } = brief;
  return (
    <div className={ground.brief}>
      <svg
        viewBox={`0 0 ${brief.ratio * 100} 100`}
        width={brief.ratio * 52}
        height="52"
        aria-hidden="true"
      >
        <rect width={brief.ratio * 100} height="100" fill="var(--soft)" />
        <rect
          x={safe.x * brief.ratio * 100}
          y={safe.y * 100}
          width={safe.w * brief.ratio * 100}
          height={safe.h * 100}
          fill="var(--card)"
        />
      </svg>
      <span>
        These frames ask for at least{" "}
        <b>
          {brief.width_px} × {brief.height_px} px
        </b>{" "}
        at {brief.density}x, with all that matters inside the middle {percent(safe.w)} ×{" "}
        {percent(safe.h)}. <Links placement={placementId} query={`ratio=${brief.ratio}`} />
      </span>
    </div>
  );
}

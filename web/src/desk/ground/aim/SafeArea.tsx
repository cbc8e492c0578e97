/** The safe area of the chosen span and of all spans, to take along as an overlay or as numbers. */
import { CopyButton, Popover } from "@mantine/core";
import type { Schemas } from "../../../api/client";
import { percent } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useDesk } from "../../context";
import ground from "../Ground.module.css";

type Safe = Schemas["Rect"] | null | undefined;

export function SafeArea({ original }: { original: Schemas["OriginalOut"] }) {
  const state = useDesk();
  const { span, reading } = state;
  const overall = reading.safe?.find((s) => s.original === original.id);
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
          <span>In view at every width. Saved changes only; lay the overlay over the picture in any program.</span>
          <One original={original} letters={[span.letter]} safe={span.safe} query={`span=${span.letter}`} />
          {overall && overall.spans.length > 1 && (
            <One original={original} letters={overall.spans} safe={overall.safe} query={`original=${original.id}`} />
          )}
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

function One({
  original,
  letters,
  safe,
  query,
}: {
  original: Schemas["OriginalOut"];
  letters: readonly string[];
  safe: Safe;
  query: string;
}) {
  const state = useDesk();
  const px = safe && {
    x0: Math.round(safe.x * original.width_px),
    x1: Math.round((safe.x + safe.w) * original.width_px),
    y0: Math.round(safe.y * original.height_px),
    y1: Math.round((safe.y + safe.h) * original.height_px),
  };
  const said = px ? `x ${px.x0} to ${px.x1}, y ${px.y0} to ${px.y1} px` : "nothing is in view at every width";
  return (
    <div style={{ display: "flex", gap: 8, alignItems: "center", flexWrap: "wrap" }}>
      {letters.map((l) => (
        <Letter key={l} of={l} small />
      ))}
      <span className="num">{said}</span>
      <Links placement={state.placementId} query={query} />
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
  const state = useDesk();
  const brief = state.reading.brief;
  if (!brief) return null;
  const { safe } = brief;
  return (
    <div className={ground.brief}>
      <svg viewBox={`0 0 ${brief.ratio * 100} 100`} width={brief.ratio * 52} height="52" aria-hidden="true">
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
        at {brief.density}x, with all that matters inside the middle {percent(safe.w)} × {percent(safe.h)}.{" "}
        <Links placement={state.placementId} query={`ratio=${brief.ratio}`} />
      </span>
    </div>
  );
}

/** The widths that one frame is exported in: how many, which, and what they waste. */
import { ActionIcon } from "@mantine/core";
import { IconX } from "@tabler/icons-react";
import { useState } from "react";
import type { Ladder } from "../../../api/queries";
import { typed } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { Tip } from "../../../ui/Tip";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import { useRungs } from "../../useRungs";
import ground from "../Ground.module.css";
import classes from "./Files.module.css";

export function LadderCard() {
  const { reading, span } = useWork();
  const mine = reading.ladders.filter((l) => l.part === reading.part);
  const ladder = mine.find((l) => l.spans.includes(span.letter));
  if (!ladder) return null;
  return <Card key={ladder.letter} ladder={ladder} />;
}

/** A share as people say waste: less than one per cent is not nothing. */
const waste = (share: number) =>
  share > 0 && share < 0.01 ? "under 1 %" : `${Math.round(share * 100)} %`;

function Card({ ladder }: { ladder: Ladder }) {
  const { handle, site } = useWork();
  const { widths, isOwn, put } = useRungs(ladder);
  const { n_files } = handle.draft.placement;
  const n = ladder.rungs.length;
  const choose = (files: number | null) =>
    handle.change((d) => {
      const { [ladder.letter]: _, ...rest } = d.placement.parts[handle.part]?.ladders ?? {};
      const parts = d.placement.parts.map((p, i) =>
        i === handle.part ? { ...p, ladders: rest } : p,
      );
      return withPlacement(d, { n_files: files, parts });
    });
  const differs = ladder.fitted && ladder.fitted.join() !== widths.join();
  return (
    <section className={ground.card} aria-label="Widths to export">
      <div className={classes.run}>
        <h3>
          {n} width{n === 1 ? "" : "s"} for{" "}
          <span className={classes.letters}>
            {ladder.spans.map((s) => (
              <Letter key={s} of={s} />
            ))}
          </span>
        </h3>
        <span className="soft">{waste(ladder.waste)} waste</span>
      </div>
      <WasteCurve ladder={ladder} chosen={isOwn ? undefined : n} choose={choose} />
      <p className={classes.said}>
        {isOwn ? (
          <>
            Your own widths.{" "}
            <button type="button" className="plain" onClick={() => put(undefined)}>
              Work them out again
            </button>
          </>
        ) : n_files ? (
          <>
            {n_files} in every ladder here, by your choice.{" "}
            <button type="button" className="plain" onClick={() => choose(null)}>
              As few as the site allows
            </button>
          </>
        ) : (
          `The fewest whose waste is at most ${site.plan.waste_percent} %, up to ${site.plan.most_files}.`
        )}
        {ladder.measured != null && (
          <>
            {" "}
            By the files made it is {waste(ladder.measured)} (bytes grow as width to the{" "}
            {ladder.exponent?.toFixed(2)}).{" "}
            {differs && (
              <button
                type="button"
                className="plain"
                onClick={() => put(ladder.fitted ?? undefined)}
              >
                Take {ladder.fitted?.join(", ")}
              </button>
            )}
          </>
        )}
      </p>
      <Rungs ladder={ladder} />
    </section>
  );
}

/**
 * What 1, 2, 3 … files would waste against everybody getting exactly what they need. A press takes
 * that many.
 */
function WasteCurve({
  ladder,
  chosen,
  choose,
}: {
  ladder: Ladder;
  chosen: number | undefined;
  choose: (n: number) => void;
}) {
  const most = Math.max(...ladder.curve.map((t) => t.waste), 0.01);
  return (
    <div className={classes.curve} role="radiogroup" aria-label="Number of files and their waste">
      {ladder.curve.map((t) => (
        <Tip
          key={t.files}
          label={`${t.files}: ${t.widths.join(", ")} px, ${waste(t.waste)} waste`}
          openDelay={300}
        >
          {/* biome-ignore lint/a11y/useSemanticElements: a bar of a chart that is pressed */}
          <button
            type="button"
            role="radio"
            aria-checked={t.files === chosen}
            aria-label={`${t.files} files, ${waste(t.waste)} waste`}
            onClick={() => choose(t.files)}
          >
            <span>
              {t.files <= 6 || t.files === chosen
                ? waste(t.waste).replace("under 1 %", "<1 %")
                : ""}
            </span>
            <i style={{ height: `${Math.max(2, (t.waste / most) * 44)}px` }} />
            <b>{t.files}</b>
          </button>
        </Tip>
      ))}
    </div>
  );
}

/** Each width, to be dropped; another one to be added. The greatest is always there. */
function Rungs({ ladder }: { ladder: Ladder }) {
  const { replace, add } = useRungs(ladder);
  const [text, setText] = useState("");
  const width = typed(text);
  const isGood =
    width !== undefined && Number.isInteger(width) && width >= 16 && width < ladder.top_px;
  return (
    <div className={classes.rungs}>
      {ladder.rungs.map((r) => (
        <span key={r.width_px} className={classes.rung}>
          {r.width_px}
          {r.width_px === ladder.top_px ? (
            <em title="The widest that any screen needs">top</em>
          ) : (
            <ActionIcon
              variant="subtle"
              size={16}
              aria-label={`Drop ${r.width_px} px`}
              onClick={() => replace(r.width_px, undefined)}
            >
              <IconX size={12} />
            </ActionIcon>
          )}
        </span>
      ))}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (isGood) add(width);
          setText("");
        }}
      >
        <input
          aria-label="Another width in px"
          placeholder="+ px"
          inputMode="numeric"
          value={text}
          aria-invalid={text !== "" && !isGood}
          title={
            text !== "" && !isGood ? `A whole number from 16 to ${ladder.top_px - 1}` : undefined
          }
          onChange={(e) => setText(e.currentTarget.value)}
        />
      </form>
    </div>
  );
}

/** Words: what lies on the picture, per span, and whether it can be read. */
import { Button, SegmentedControl, Switch } from "@mantine/core";
import { useState } from "react";
import { useWork } from "../../context";
import { type Draft, withLayout, withPlacement } from "../../draft";
import { type Guides, setGuides, useGuides } from "../../guides";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import { InsetFields, MarkFields } from "./RoleFields";
import { Stage } from "./Stage";
import { UnderFields } from "./UnderFields";
import { NO_WORDS } from "./useWords";
import classes from "./Words.module.css";
import { WordsAdvice } from "./WordsAdvice";
import { WordsAtCursor } from "./WordsAtCursor";
import { WordsFields } from "./WordsFields";

const TABS = [
  ["words", "Words", WordsFields],
  ["under", "Under", UnderFields],
  ["mark", "Mark", MarkFields],
  ["inset", "Inset", InsetFields],
] as const;

/** Values that are called otherwise than their field. */
const NAMES: Record<string, string> = {
  shows: "where the words show",
  percent: "width",
  margin_px: "margin",
  heading_px: "size of the heading",
  text_px: "size of the text",
  button: "colours of the buttons",
  strength: "strength of the scrim",
  share_percent: "share of the row",
};

/** What the advice tells of, with more about it. */
const ADVISED = ["unreadable", "unreadable-before-loading", "words-on-area", "words-outgrow"];

export function WordsStep() {
  const { reading, handle, span } = useWork();
  const [tab, setTab] = useState<string>("words");
  if (!reading.words) return <MakeBanner />;
  const Fields = (TABS.find(([name]) => name === tab) ?? TABS[0])[2];
  const own = handle.draft.placement.layout[span.letter] ?? {};
  const owned = {
    words: Object.keys(own).map((f) => NAMES[f] ?? f.replace(/_px$|_percent$/, "").replace("_", " ")),
    copied: (d: Draft, to: readonly string[]) => to.reduce((e, l) => withLayout(e, l, own), d),
    reset: (d: Draft) => withLayout(d, span.letter, Object.fromEntries(Object.keys(own).map((f) => [f, undefined]))),
  };
  const { parts } = handle.draft.placement;
  // a mark's and an inset's are told beside their values while these are open
  const found = reading.findings.filter(
    (f) => f.step === "words" && !ADVISED.includes(f.rule) && (parts[f.part]?.role ?? "words") !== tab,
  );
  return (
    <>
      <div className={classes.stage}>
        <Stage />
        <GuidesBar />
      </div>
      <div className={ground.column} style={{ flex: "1 1 420px" }}>
        <SpanHead owned={owned}>
          <SegmentedControl
            size="xs"
            className={classes.tabs}
            aria-label="What is worked on"
            value={tab}
            onChange={setTab}
            data={TABS.map(([value, label]) => ({ value, label }))}
          />
        </SpanHead>
        <Fields />
      </div>
      <div className={ground.column} style={{ flex: "1 1 300px", paddingLeft: 0 }}>
        <div className={ground.stack}>
          <WordsAdvice />
          <Findings of={found.filter((f) => !f.spans.length || f.spans.includes(span.letter))} />
          <WordsAtCursor />
          <button
            type="button"
            className={`plain ${classes.away}`}
            onClick={() => handle.change((d) => withPlacement(d, PICTURE(d.placement.parts)))}
          >
            make it a plain picture
          </button>
        </div>
      </div>
    </>
  );
}

/** Without what only a banner has. */
const PICTURE = (parts: ReturnType<typeof useWork>["handle"]["draft"]["placement"]["parts"]) => ({
  kind: "picture",
  words: null,
  layout: {},
  parts: parts.slice(0, 1),
});

function GuidesBar() {
  const guides = useGuides();
  return (
    <div className={classes.guides}>
      <span>guides</span>
      <SegmentedControl
        size="xs"
        aria-label="Guides"
        value={guides.lines}
        onChange={(lines) => setGuides({ lines: lines as Guides["lines"] })}
        data={["none", "centre", "thirds", "safe"]}
      />
      <Switch
        size="xs"
        label="see through"
        checked={guides.through}
        onChange={(e) => setGuides({ through: e.currentTarget.checked })}
      />
    </div>
  );
}

/** What words begin with on the narrowest screens, where the defaults of wide ones leave no room. */
const ON_A_PHONE = { percent: 100, heading_px: 28, text_px: 16, margin_px: 16 };

/** A plain picture has no words; with them it is a banner. */
function MakeBanner() {
  const { handle, reading } = useWork();
  const narrowest = reading.spans[0]?.letter ?? "A";
  const { kind, parts } = handle.draft.placement;
  if (kind !== "picture" || parts.length > 1)
    return (
      <div className={classes.offer}>
        <p>Words belong to banners; a {kind} has none.</p>
      </div>
    );
  return (
    <div className={classes.offer}>
      <h3>Nothing lies on this picture</h3>
      <p>
        With words, a scrim, a mark or an inset it is a banner: its frame, areas, files and code stay as they are, and
        whether the words can be read is worked out for every width.
      </p>
      <Button
        onClick={() =>
          handle.change((d) =>
            withPlacement(d, {
              kind: "banner",
              words: { ...NO_WORDS, heading: d.placement.name },
              layout: { ...d.placement.layout, [narrowest]: { ...ON_A_PHONE, ...d.placement.layout[narrowest] } },
            }),
          )
        }
      >
        Make it a banner
      </Button>
    </div>
  );
}

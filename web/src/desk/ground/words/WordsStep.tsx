/** Words: what lies on the picture, per span, and whether it can be read. */
import { Button, SegmentedControl, Switch } from "@mantine/core";
import { useEffect, useState } from "react";
import { Rows } from "../../../ui/states";
import { isSeen } from "../../conditions";
import { useWork } from "../../context";
import { type Guides, setGuides, useGuides } from "../../guides";
import { FOR_WORDS } from "../../kinds/kinds";
import { Told } from "../../Told";
import { useKind } from "../../useKind";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { CaptionsStep } from "../items/CaptionsStep";
import { SpanHead } from "../OwnValues";
import { InsetFields, MarkFields } from "./RoleFields";
import { Stage } from "./Stage";
import { UnderFields } from "./UnderFields";
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

/** What the advice tells of, with more about it. */
const ADVISED = ["unreadable", "unreadable-before-loading", "words-on-area", "words-outgrow"];

/** The tab that has a value. */
const tabOf = (at: string) =>
  /^(mark|inset)/.exec(at)?.[1] ?? (["scrim", "strength", "box"].includes(at) ? "under" : "words");

export function WordsStep() {
  const { reading, handle, span, spot, conditions } = useWork();
  const [tab, setTab] = useState<string>("words");
  const { begin, busy, refused } = useKind();
  // a sentence led to a value of another tab
  useEffect(() => {
    if (spot?.step === "words" && spot.at) setTab(tabOf(spot.at));
  }, [spot]);
  if (reading.items) return <CaptionsStep />;
  if (!reading.words) return <MakeBanner />;
  const Fields = (TABS.find(([name]) => name === tab) ?? TABS[0])[2];
  const { parts } = handle.draft.placement;
  // a mark's and an inset's are told beside their values while these are open
  const found = reading.findings.filter(
    (f) =>
      f.step === "words" &&
      // under other conditions no advice speaks of it
      (!ADVISED.includes(f.rule) || !isSeen(f.when, conditions)) &&
      (parts[f.part]?.role ?? "") !== tab,
  );
  return (
    <>
      <div className={classes.stage}>
        <Stage />
        <GuidesBar />
      </div>
      <div className={ground.column} style={{ flex: "1 1 420px" }}>
        <SpanHead>
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
          <Told>
            <WordsAdvice />
            <Findings of={found.filter((f) => !f.spans.length || f.spans.includes(span.letter))} />
          </Told>
          <Told moves>
            <WordsAtCursor />
          </Told>
          <button
            type="button"
            className={`plain ${classes.away}`}
            disabled={busy}
            onClick={() => begin("picture")}
          >
            make it a plain picture
          </button>
          {refused}
        </div>
      </div>
    </>
  );
}

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

/** A plain picture has no words; with them it is a banner. */
function MakeBanner() {
  const { handle } = useWork();
  const { begin, busy, refused } = useKind();
  const { kind, parts } = handle.draft.placement;
  // the answer for what it has just become is under way
  if (kind === FOR_WORDS) return <Rows n={3} height={90} />;
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
        With words, a scrim, a mark or an inset it is a banner: its frame, areas, files and code
        stay as they are, and whether the words can be read is worked out for every width.
      </p>
      <Button loading={busy} onClick={() => begin(FOR_WORDS)}>
        Make it a banner
      </Button>
      {refused}
    </div>
  );
}

/**
 * A span's head: what is its own, with a way to hand all of it down again or to give it to other
 * spans.
 */
import { Button, Checkbox, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { type ReactNode, useState } from "react";
import type { Treatment } from "../../api/queries";
import { plural, range } from "../../ui/format";
import { Letter } from "../../ui/Letter";
import { featuresOf, whenWords } from "../conditions";
import { useWork } from "../context";
import { type Draft, partOf, treatmentsOf, withCommon, withTreatment } from "../draft";
import { Told } from "../Told";
import ground from "./Ground.module.css";
import { LastChange } from "./LastChange";
import { useKindValues } from "./useKindValues";
import { useLaying } from "./useLaying";

interface Owned {
  /** What the span sets itself, in words. */
  words: readonly string[];
  /** The draft with it in other spans too, or with none of it. */
  copied: (draft: Draft, to: readonly string[]) => Draft;
  reset: (draft: Draft) => Draft;
}

/** What a span sets itself: values of the treatment and of the kind, of this part or of all. */
function useOwned(): Owned {
  const { span, reading, handle, ofAll } = useWork();
  const { letter } = span;
  const { common } = handle.draft.placement;
  const { ownValues } = useKindValues();
  const lay = useLaying();
  const set = (values: object | undefined) =>
    Object.fromEntries(
      Object.entries(values ?? {}).filter(([, v]) => v !== null && v !== undefined),
    );
  const own = set(
    ofAll ? common[letter] : treatmentsOf(handle.draft, handle.part)[letter],
  ) as Treatment;
  const ofKind = set(ownValues);
  const without = (values: object) =>
    Object.fromEntries(Object.keys(values).map((f) => [f, undefined]));
  const put = (d: Draft, to: string, values: Treatment, kinds: object) => {
    const treated = ofAll ? withCommon(d, to, values) : withTreatment(d, handle.part, to, values);
    return Object.keys(kinds).length ? lay(treated, to, kinds as Record<string, unknown>) : treated;
  };
  return {
    words: [
      ...Object.keys(own).map((f) => WORDS[f] ?? f),
      ...Object.keys(ofKind).map((f) => reading.values[f]?.name ?? f),
    ],
    copied: (d, to) => to.reduce((e, l) => put(e, l, own, ofKind), d),
    reset: (d) => put(d, letter, without(own) as Treatment, without(ofKind)),
  };
}

export function SpanHead({ children }: { children?: ReactNode }) {
  const { span, reading } = useWork();
  const owned = useOwned();
  const head = (
    <div className={ground.head}>
      <Letter of={span.letter} />
      <b>{range(span.first, span.last, reading.widest)}</b>
      <OwnValues owned={owned} />
      <UnderWhich />
      {children ?? <Changed />}
    </div>
  );
  if (!children) return head;
  // its room is kept: what stands below does not move when something is told in it
  return (
    <>
      {head}
      <div className={ground.told}>
        <Changed />
      </div>
    </>
  );
}

/** Under which conditions what is set here holds, or that nothing else does under those seen. */
function UnderWhich() {
  const { handle, conditions } = useWork();
  const of = partOf(handle.draft, handle.part).when ?? [];
  const seen = featuresOf(conditions);
  if (of.length) return <em>{whenWords(of)}</em>;
  return seen.length ? <em>as usual {whenWords(seen)}</em> : null;
}

const Changed = () => (
  <Told>
    <LastChange />
  </Told>
);

function OwnValues({ owned }: { owned: Owned }) {
  const { span, handle, reading } = useWork();
  const [opened, { toggle, close }] = useDisclosure();
  const [to, setTo] = useState<string[]>([]);
  if (!owned.words.length) return <span>all handed down</span>;
  const others = reading.spans.filter((s) => s.letter !== span.letter);
  return (
    <Popover
      opened={opened}
      onChange={(o) => !o && close()}
      position="bottom-start"
      shadow="md"
      trapFocus
    >
      <Popover.Target>
        <button type="button" className="plain" onClick={toggle} aria-expanded={opened}>
          {owned.words.length} of its own
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={ground.stack} style={{ width: 270 }}>
          <span>
            Own here: {owned.words.join(", ")}. The rest is handed down from the next wider span.
          </span>
          <Checkbox.Group label="Copy them to" value={to} onChange={setTo}>
            <div style={{ display: "flex", gap: 12, marginTop: 6 }}>
              {others.map((s) => (
                <Checkbox
                  key={s.letter}
                  value={s.letter}
                  label={<Letter of={s.letter} />}
                  aria-label={`Span ${s.letter}`}
                />
              ))}
            </div>
          </Checkbox.Group>
          <div style={{ display: "flex", gap: 8 }}>
            <Button
              disabled={!to.length}
              onClick={() => {
                handle.change((d) => owned.copied(d, to));
                setTo([]);
                close();
              }}
            >
              Copy to {to.length ? plural(to.length, "span") : "…"}
            </Button>
            <Button
              variant="default"
              onClick={() => {
                handle.change(owned.reset);
                close();
              }}
            >
              Reset all
            </Button>
          </div>
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}

const WORDS: Record<string, string> = {
  show: "what shows",
  keeps: "areas that matter",
  whole: "what the files carry",
  background: "colour",
};

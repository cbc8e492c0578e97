/** A span's head: what is its own, with a way to hand all of it down again or to give it to other spans. */
import { Button, Checkbox, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { type ReactNode, useState } from "react";
import type { Treatment } from "../../api/queries";
import { plural, range } from "../../ui/format";
import { Letter } from "../../ui/Letter";
import { useWork } from "../context";
import { type Draft, withCommon, withTreatment, withTreatments } from "../draft";
import { Told } from "../Told";
import ground from "./Ground.module.css";

interface Owned {
  /** What the span sets itself, in words. */
  words: readonly string[];
  /** The draft with it in other spans too, or with none of it. */
  copied: (draft: Draft, to: readonly string[]) => Draft;
  reset: (draft: Draft) => Draft;
}

/** `owned`: other values than those of the treatment. */
export function SpanHead({ owned, children }: { owned?: Owned; children?: ReactNode }) {
  const { span, reading, handle, ofAll } = useWork();
  const fields = ofAll ? Object.keys(handle.draft.placement.common[span.letter] ?? {}) : span.own;
  const own = Object.fromEntries(fields.map((f) => [f, span.effective[f as keyof Treatment]])) as Treatment;
  const none = Object.fromEntries(fields.map((f) => [f, undefined]));
  const treated: Owned = {
    words: fields.map((f) => WORDS[f] ?? f),
    copied: (d, to) =>
      ofAll
        ? to.reduce((e, l) => withCommon(e, l, own), d)
        : withTreatments(d, handle.part, Object.fromEntries(to.map((l) => [l, own]))),
    reset: (d) => (ofAll ? withCommon(d, span.letter, none) : withTreatment(d, handle.part, span.letter, none)),
  };
  return (
    <div className={ground.head}>
      <Letter of={span.letter} />
      <b>{range(span.first, span.last, reading.widest)}</b>
      <Told>
        <OwnValues owned={owned ?? treated} />
        {children ? null : <Touched />}
      </Told>
      {children}
    </div>
  );
}

function OwnValues({ owned }: { owned: Owned }) {
  const { span, handle, reading } = useWork();
  const [opened, { toggle, close }] = useDisclosure();
  const [to, setTo] = useState<string[]>([]);
  if (!owned.words.length) return <span>all handed down</span>;
  const others = reading.spans.filter((s) => s.letter !== span.letter);
  return (
    <Popover opened={opened} onChange={(o) => !o && close()} position="bottom-start" shadow="md" trapFocus>
      <Popover.Target>
        <button type="button" className="plain" onClick={toggle} aria-expanded={opened}>
          {owned.words.length} of its own
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <div className={ground.stack} style={{ width: 270 }}>
          <span>Own here: {owned.words.join(", ")}. The rest is handed down from the next wider span.</span>
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

/** Which spans the last step changed; those that are not named show the same as before at every width. */
function Touched() {
  const { touched, reading } = useWork();
  if (!touched) return null;
  const same = reading.spans.filter((s) => !touched.includes(s.letter)).map((s) => s.letter);
  if (!touched.length) return <span className={ground.touched}>last change: nothing shows otherwise</span>;
  return (
    <span
      className={ground.touched}
      title={same.length ? `${same.join(", ")} show exactly the same as before at every width.` : undefined}
    >
      last change: {touched.join(", ")}
      {same.length > 0 && `; ${same.join(", ")} identical`}
    </span>
  );
}

/** The site's named frames: what each says per span, and where it is used. */
import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { type SitePlan, useFrameUses } from "../api/queries";
import { HeightField } from "../desk/ground/frame/HeightField";
import { WidthField } from "../desk/ground/frame/WidthField";
import { describeHeight, describeWidth } from "../desk/ground/frame/words";
import { plural } from "../ui/format";
import { Letter } from "../ui/Letter";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

type Frame = SitePlan["frames"][number];
type Values = Frame["spans"][string];
const NOTHING: Values = { width: null, height: null, stands: null };

/** An id that no other frame of the site has. */
export function freeId(name: string, frames: readonly Frame[]): string {
  const plain = name
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^[^a-z]+|-+$/g, "");
  const stem = plain.slice(0, 30) || "frame";
  let id = stem;
  for (let n = 2; frames.some((f) => f.id === id); n++) id = `${stem}-${n}`;
  return id;
}

export function NamedFrames({
  plan,
  set,
  letters,
  siteId,
}: PlanProps & { letters: string[]; siteId: number }) {
  const uses = useFrameUses(siteId);
  const put = (frame: Frame) =>
    set({ frames: plan.frames.map((f) => (f.id === frame.id ? frame : f)) });
  const add = () => {
    const name = freeId("column third", plan.frames).replace(/-/g, " ");
    const widest = letters[letters.length - 1] as string;
    const width = { kind: "columns", columns: 3, take: 1, gutter_px: 20, of: "container" } as const;
    const spans = {
      [widest]: { ...NOTHING, width: { ...width, least_px: null, greatest_px: null } },
    };
    set({ frames: [...plan.frames, { id: freeId(name, plan.frames), name, spans }] });
  };
  return (
    <Row label="Frames">
      {plan.frames.length === 0 && (
        <p className="soft">
          A frame that many placements have, a third of the container or a hero, gets a name here or
          in a placement&apos;s Frame step, and is then changed in one place.
        </p>
      )}
      {plan.frames.map((f) => (
        <FrameEditor
          key={f.id}
          frame={f}
          letters={letters}
          used={uses.data?.[f.id] ?? []}
          put={put}
          remove={() => set({ frames: plan.frames.filter((x) => x.id !== f.id) })}
        />
      ))}
      <div>
        <Button variant="default" onClick={add}>
          New frame
        </Button>
      </div>
    </Row>
  );
}

interface EditorProps {
  frame: Frame;
  letters: string[];
  used: string[];
  put: (frame: Frame) => void;
  remove: () => void;
}

function FrameEditor({ frame, letters, used, put, remove }: EditorProps) {
  const [open, setOpen] = useState<string>();
  const say = (letter: string, values: Partial<Values>) => {
    const said = { ...NOTHING, ...frame.spans[letter], ...values };
    const { [letter]: _, ...rest } = frame.spans;
    const isSomething = said.width || said.height || said.stands;
    put({ ...frame, spans: isSomething ? { ...rest, [letter]: said } : rest });
  };
  /** What holds in a span: its own, or from the next wider one that says it. */
  const held = (letter: string) =>
    letters.slice(letters.indexOf(letter)).reduce<Values>(
      (v, l) => ({
        width: v.width ?? frame.spans[l]?.width ?? null,
        height: v.height ?? frame.spans[l]?.height ?? null,
        stands: v.stands ?? frame.spans[l]?.stands ?? null,
      }),
      NOTHING,
    );
  return (
    <section className={classes.frame} aria-label={`Frame ${frame.name}`}>
      <div className={classes.inline}>
        <TextInput
          aria-label={`Name of the frame ${frame.name}`}
          value={frame.name}
          maxLength={40}
          onChange={(e) => put({ ...frame, name: e.currentTarget.value })}
          styles={{ input: { width: 170, fontWeight: 650 } }}
        />
        <span className="soft" title={used.join("\n") || undefined}>
          {used.length
            ? `used by ${used.slice(0, 3).join(", ")}${used.length > 3 ? ` and ${used.length - 3} more` : ""}`
            : "not used yet"}
        </span>
        <button
          type="button"
          className="plain"
          onClick={remove}
          title={
            used.length
              ? `${plural(used.length, "placement")} keep its values as their own`
              : undefined
          }
        >
          remove
        </button>
      </div>
      {[...letters].reverse().map((letter) => {
        const own = frame.spans[letter];
        const { width, height } = held(letter);
        return (
          <div key={letter} className={classes.frameSpan}>
            <button
              type="button"
              className={classes.frameSaid}
              aria-expanded={open === letter}
              onClick={() => setOpen(open === letter ? undefined : letter)}
            >
              <Letter of={letter} />
              <span data-own={!!own?.width || undefined}>
                {width ? describeWidth(width) : "width as the placement has it"}
              </span>
              <span data-own={!!own?.height || undefined}>
                {height ? describeHeight(height) : "height as the placement has it"}
              </span>
            </button>
            {open === letter && (
              <div className={classes.frameFields}>
                <div className={classes.inline}>
                  <WidthField
                    rule={
                      width ?? { kind: "full", margin_px: 0, least_px: null, greatest_px: null }
                    }
                    set={(rule) => say(letter, { width: rule })}
                  />
                  {own?.width && (
                    <button
                      type="button"
                      className="plain"
                      onClick={() => say(letter, { width: null })}
                    >
                      reset
                    </button>
                  )}
                </div>
                <div className={classes.inline}>
                  <HeightField
                    rule={height ?? { kind: "natural", least_px: null, greatest_px: null }}
                    now={400}
                    set={(rule) => say(letter, { height: rule })}
                  />
                  {own?.height && (
                    <button
                      type="button"
                      className="plain"
                      onClick={() => say(letter, { height: null })}
                    >
                      reset
                    </button>
                  )}
                </div>
              </div>
            )}
          </div>
        );
      })}
    </section>
  );
}

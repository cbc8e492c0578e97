/**
 * The banner at the cursor, large: press a text to type, drag the words to one of the nine places.
 */
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { useState } from "react";
import type { WordsSpan } from "../../../api/queries";
import { useDesk } from "../../context";
import { linesOf, useGuides } from "../../guides";
import { heightAt, spanAt, valueAt } from "../../scale";
import { PaneFrame } from "../../sky/PaneFrame";
import { windowAt } from "../aim/windowAt";
import { PLACES, placeAt, placeWord } from "./places";
import { useWords } from "./useWords";
import classes from "./Words.module.css";

/** The page's own head above the banner, in the panes. */
const HEAD_PX = 60;

interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}
type Curves = WordsSpan["area"];
type TextId = WordsSpan["texts"][number]["id"];

/** The place of a button among all, as its text is called. */
const buttonAt = (id: TextId) => Number(id.slice("button-".length)) - 1;

const boxAt = (c: Curves | null | undefined, width: number): Box | undefined => {
  const [x, y, w, h] = [c?.x, c?.y, c?.w, c?.h].map((curve) => valueAt(curve, width));
  return x === undefined || y === undefined || w === undefined || h === undefined
    ? undefined
    : { x, y, w, h };
};

export function Stage() {
  const { reading, site, cursor, scrollbar, span, handle, conditions } = useDesk();
  const { ref, width, height } = useElementSize();
  const { values, words, detail, set, setWords } = useWords();
  const [editing, setEditing] = useState<TextId>();
  const [dragging, setDragging] = useState(false);
  const guides = useGuides();
  // the stage is at the cursor; the span there may not be the one that is worked on
  const letter = spanAt(reading.spans, cursor)?.letter;
  const here = reading.words?.spans.find((s) => s.letter === letter);
  const banner = boxAt(here?.banner, cursor);
  const area = boxAt(here?.area, cursor);
  const block = boxAt(here?.block, cursor);
  // what is measured in viewport heights keeps the viewport's; else the pane is as high as the
  // banner
  const screen = heightAt(reading, cursor);
  const rule = spanAt(reading.spans, cursor)?.effective.height;
  const onScreen =
    rule?.kind === "vh" || (rule?.kind === "ratio" && (rule.least_vh ?? rule.greatest_vh) != null);
  const scale =
    banner && width && height ? Math.min(width / banner.w, height / Math.max(banner.h, 1), 1) : 0;
  const at = (b: Box) => ({
    left: b.x * scale,
    top: b.y * scale,
    width: b.w * scale,
    height: b.h * scale,
  });
  const bind = useDrag(
    ({ event, tap, xy: [x, y], last }) => {
      if (tap || !area || letter !== span.letter || values?.shows !== "on")
        return setDragging(false);
      const box = (event.currentTarget as HTMLElement)
        .closest(`.${classes.banner}`)
        ?.getBoundingClientRect();
      if (!box) return;
      setDragging(!last);
      const place = placeAt(
        (x - box.left - area.x * scale) / (area.w * scale),
        (y - box.top - area.y * scale) / (area.h * scale),
      );
      if (place !== values.place) set({ place }, "place");
      if (last) handle.settle();
    },
    { filterTaps: true, pointer: { keys: false } },
  );
  const covers = (p: string) => detail?.places.find((r) => r.place === p)?.covers.length;
  const seen = span.letter === letter ? windowAt(span, cursor) : undefined;
  return (
    <div className={classes.room} ref={ref}>
      {banner && scale > 0 && (
        <div
          className={classes.banner}
          style={{ width: banner.w * scale, height: banner.h * scale }}
        >
          <div
            className={classes.pane}
            style={{ left: -banner.x * scale, top: -HEAD_PX * scale }}
            aria-hidden="true"
          >
            <PaneFrame
              conditions={conditions}
              reading={reading}
              site={site.name}
              width={cursor}
              height={onScreen ? screen : Math.max(screen, Math.ceil(banner.h + HEAD_PX))}
              scale={scale}
              scrollbar={scrollbar}
            />
          </div>
          {dragging && area && (
            <div className={classes.ninths} style={at(area)}>
              {PLACES.map((p) => (
                <i
                  key={p}
                  data-covers={covers(p) ? true : undefined}
                  data-here={p === values?.place || undefined}
                />
              ))}
            </div>
          )}
          {guides.lines === "safe" && seen && span.safe && area && (
            <div
              className={classes.safe}
              title="In view at every width of the span"
              style={at({
                x: area.x + ((span.safe.x - seen.x) / seen.w) * area.w,
                y: area.y + ((span.safe.y - seen.y) / seen.h) * area.h,
                w: (span.safe.w / seen.w) * area.w,
                h: (span.safe.h / seen.h) * area.h,
              })}
            />
          )}
          {block && (
            <div
              className={classes.block}
              style={at(block)}
              {...bind()}
              data-drags={values?.shows === "on" || undefined}
            />
          )}
          {here?.texts.map((t) => {
            const box = boxAt(t as unknown as Curves, cursor);
            if (!box) return null;
            return (
              // by keys the same words are edited in the form, whose button is as large as a target
              // has to be
              <button
                key={t.id}
                type="button"
                tabIndex={-1}
                aria-hidden="true"
                data-text={t.id}
                className={classes.text}
                style={at(box)}
                title="Press to type, drag to move"
                {...bind()}
                onClick={() => setEditing(t.id)}
              />
            );
          })}
        </div>
      )}
      {editing && (
        <TextEditor
          label={editing.startsWith("button") ? "Button" : editing}
          value={
            editing === "heading"
              ? words.heading
              : editing === "text"
                ? words.text
                : (words.buttons[buttonAt(editing)]?.label ?? "")
          }
          set={(v) =>
            editing === "heading" || editing === "text"
              ? setWords({ [editing]: v }, editing)
              : setWords(
                  {
                    buttons: words.buttons.map((b, i) =>
                      i === buttonAt(editing) ? { ...b, label: v } : b,
                    ),
                  },
                  editing,
                )
          }
          done={() => {
            setEditing(undefined);
            handle.settle();
          }}
        />
      )}
      {dragging && values && <div className={classes.dragged}>{placeWord(values.place)}</div>}
      {linesOf(guides).length === 0 ? null : <span className="srOnly">guides: {guides.lines}</span>}
    </div>
  );
}

interface EditorProps {
  label: string;
  value: string;
  set: (text: string) => void;
  done: () => void;
}

/** A field over the stage, while a text is typed; the banner behind it follows. */
function TextEditor({ label, value, set, done }: EditorProps) {
  return (
    <textarea
      className={classes.editor}
      aria-label={`The ${label.toLowerCase()}`}
      // biome-ignore lint/a11y/noAutofocus: it was asked for by a press
      autoFocus
      rows={label === "text" ? 3 : 2}
      value={value}
      onChange={(e) => set(e.currentTarget.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === "Escape" || (e.key === "Enter" && (label !== "text" || e.ctrlKey))) {
          e.preventDefault();
          done();
        }
      }}
    />
  );
}

/** What the page is seen under, each by its word and a key. */
import { NativeSelect } from "@mantine/core";
import { type Conditions, KNOWS, PICTURES, settled, TURNS } from "../conditions";
import { useDesk } from "../context";
import { SCROLLBARS } from "../usePlace";
import classes from "./Sky.module.css";

const following = <T,>(all: readonly T[], now: T) => all[(all.indexOf(now) + 1) % all.length] as T;

interface Condition {
  key: string;
  /** Whether it is otherwise than usual, how it is called then or would be next, and what it is. */
  of: (c: Conditions) => { on: boolean; word: string };
  title: string;
  next: (c: Conditions) => Conditions;
}

export const CONDITION_KEYS: Condition[] = [
  {
    key: "N",
    of: (c) => ({ on: c.dark, word: "dark" }),
    title: "As it is seen where a dark colour scheme is asked for",
    next: (c) => settled({ ...c, dark: !c.dark }),
  },
  {
    key: "R",
    of: (c) => ({ on: c.still, word: "at rest" }),
    title: "As it is seen where less motion is asked for",
    next: (c) => settled({ ...c, still: !c.still }),
  },
  {
    key: "T",
    of: (c) => ({ on: c.turn !== "typical", word: c.turn === "lying" ? "lying" : "upright" }),
    title: "All screens upright; once more: all lying; once more: as they stand",
    next: (c) => settled({ ...c, turn: following(TURNS, c.turn) }),
  },
  {
    key: "P",
    of: (c) => ({
      on: c.pictures !== "here",
      word: c.pictures === "failed" ? "failed" : "coming",
    }),
    title: "Pictures on their way; once more: pictures that failed; once more: pictures",
    next: (c) => settled({ ...c, pictures: following(PICTURES, c.pictures) }),
  },
  {
    key: "F",
    of: (c) => ({ on: c.knows !== "avif", word: c.knows === "jpeg" ? "no WebP" : "no AVIF" }),
    title: "Browsers without AVIF; once more: nor WebP; once more: all formats",
    next: (c) => settled({ ...c, knows: following(KNOWS, c.knows) }),
  },
];

export function Weather() {
  const { conditions, setConditions, scrollbar, setScrollbar } = useDesk();
  return (
    <fieldset className={classes.weather} aria-label="What the page is seen under">
      {CONDITION_KEYS.map(({ key, of, title, next }) => {
        const { on, word } = of(conditions);
        return (
          <button
            key={key}
            type="button"
            aria-pressed={on}
            aria-keyshortcuts={key}
            title={title}
            onClick={() => setConditions(next(conditions))}
          >
            <span>{word}</span>
            <kbd>{key}</kbd>
          </button>
        );
      })}
      <NativeSelect
        size="xs"
        aria-label="Scrollbar that panes and bands are seen with"
        title="A classic scrollbar makes the page narrower than the viewport; breakpoints go by the viewport."
        value={scrollbar}
        onChange={(e) => setScrollbar(Number(e.currentTarget.value))}
        data={SCROLLBARS.map((px) => ({
          value: String(px),
          label: px ? `bar ${px} px` : "no bar",
        }))}
      />
    </fieldset>
  );
}

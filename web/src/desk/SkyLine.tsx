/**
 * The line between sky and horizon: drag it, or press its tab, to give one of sky and ground more
 * room.
 */
import { IconChevronDown, IconChevronUp } from "@tabler/icons-react";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, type RefObject, useRef } from "react";
import { DRAG } from "../ui/drag";
import classes from "./Desk.module.css";
import type { Decks } from "./useDecks";

interface Props {
  decks: Decks;
  /** The sky and the ground, whose heights are what the line shares out. */
  sky: RefObject<HTMLElement | null>;
  ground: RefObject<HTMLElement | null>;
  toggle: () => void;
  drag: (ground: number, room: number) => void;
}

const STEP_PX = 24;

export function SkyLine({ decks, sky, ground, toggle, drag }: Props) {
  const began = useRef({ ground: 0, room: 0 });
  const measure = () => {
    const g = ground.current?.clientHeight ?? 0;
    return { ground: g, room: g + (sky.current?.clientHeight ?? 0) };
  };
  const bind = useDrag(({ first, movement: [, my], tap }) => {
    if (tap) return;
    if (first) began.current = measure();
    drag(began.current.ground - my, began.current.room);
  }, DRAG);
  const step = (e: KeyboardEvent) => {
    const by = { ArrowUp: STEP_PX, ArrowDown: -STEP_PX }[e.key];
    if (by === undefined) return;
    e.preventDefault();
    const now = measure();
    drag(now.ground + by, now.room);
  };
  const Icon = decks.isLow ? IconChevronDown : IconChevronUp;
  return (
    <div className={classes.line}>
      <div className={classes.lineGrip} {...bind()} />
      <button
        type="button"
        className={classes.lineTab}
        onClick={toggle}
        onKeyDown={step}
        title={`${decks.isLow ? "Raise the sky" : "Lower the sky to a strip"} (S); drag the line, or use the arrow keys`}
        aria-label={decks.isLow ? "Raise the sky" : "Lower the sky to a strip"}
      >
        <Icon size={14} />
      </button>
    </div>
  );
}

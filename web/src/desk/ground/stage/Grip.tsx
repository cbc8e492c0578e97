/** One handle: pulled by hand, moved by keys, or its value typed. */
import { useDrag } from "@use-gesture/react";
import { useEffect, useRef, useState } from "react";
import type { HandleReading, Pulled } from "./ask";
import { nextStop, placeOf, spoken } from "./pulling";
import classes from "./Stage.module.css";

/** Keys that have rested so long have ended their step. */
const REST_MS = 700;
/** A stop is taken from so many px of the screen. */
const NEAR_SCREEN_PX = 7;

export interface Hand {
  take: (h: HandleReading, at: number) => void;
  move: (asked: { to?: number; value?: number; near_px?: number; free?: boolean }) => void;
  drop: () => void;
  takeBack: () => void;
}

interface Props {
  handle: HandleReading;
  hand: Hand;
  /** What is known of it while it is in hand. */
  found: Pulled | undefined;
  held: boolean;
  /** Where the hand is, in CSS px along its axis. */
  at: number;
  scale: number;
  /** How far down the page the placement begins, in CSS px. */
  top: number;
  /** Of those that lie on one another the how many-th. */
  place: number;
  pale: boolean;
}

export function Grip(props: Props) {
  const { handle: h, hand, found, held, at, scale, top, place, pale } = props;
  const [typing, setTyping] = useState(false);
  const timer = useRef(0);
  const keyed = useRef(false);
  const now = useRef(at);
  now.current = at;
  useEffect(() => () => window.clearTimeout(timer.current), []);
  const isX = h.axis === "x";

  const bind = useDrag(
    ({ first, last, movement: [dx, dy], event, memo, canceled }) => {
      const start = first ? placeOf(h) : (memo as number);
      if (first) hand.take(h, start);
      if (canceled) hand.takeBack();
      else {
        const to = start + (isX ? dx : dy) / scale;
        if (!first) {
          const free = (event as PointerEvent).shiftKey;
          hand.move({ to, near_px: free ? 0 : NEAR_SCREEN_PX / scale, free });
        }
        if (last) hand.drop();
      }
      return start;
    },
    { enabled: !pale, pointer: { keys: false, capture: true }, threshold: 1, filterTaps: true },
  );

  const rest = () => {
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => {
      keyed.current = false;
      hand.drop();
    }, REST_MS);
  };
  const keys = (e: React.KeyboardEvent) => {
    if (e.key === "Enter" && !typing) {
      e.preventDefault();
      setTyping(true);
      return;
    }
    if (e.key === "Escape" && (held || keyed.current)) {
      e.preventDefault();
      e.stopPropagation();
      window.clearTimeout(timer.current);
      keyed.current = false;
      hand.takeBack();
      return;
    }
    const back = isX ? "ArrowLeft" : "ArrowUp";
    const on = isX ? "ArrowRight" : "ArrowDown";
    if (e.key !== back && e.key !== on) return;
    e.preventDefault();
    e.stopPropagation();
    if (pale && !keyed.current) return;
    const way = e.key === on ? 1 : -1;
    if (!keyed.current) hand.take(h, placeOf(h));
    const from = keyed.current ? now.current : placeOf(h);
    keyed.current = true;
    const stop = e.altKey ? nextStop(h, from, way) : undefined;
    if (e.altKey && !Number.isFinite(stop)) return rest();
    const to = stop ?? from + way * (e.shiftKey ? 10 : 1);
    now.current = to;
    hand.move(e.altKey ? { to, near_px: 0.6 } : { to, free: true });
    rest();
  };

  const said = found?.words ?? h.said;
  const middle = isX ? (h.y0 + h.y1) / 2 : (h.x0 + h.x1) / 2;
  // those that lie on one another stand beside each other along their edge
  const along = middle * scale + (place % 2 ? 1 : -1) * Math.ceil(place / 2) * 46;
  const across = at * scale;
  const style = isX
    ? { left: across, top: along + top * scale }
    : { left: along, top: across + top * scale };
  return (
    <>
      <button
        type="button"
        role="slider"
        className={classes.grip}
        data-axis={h.axis}
        data-held={held || undefined}
        data-own={h.is_own || undefined}
        data-pale={pale || undefined}
        data-handle={h.id}
        aria-label={h.name}
        aria-orientation={isX ? "horizontal" : "vertical"}
        aria-valuemin={Math.round(h.at_least)}
        aria-valuemax={Math.round(h.at_most)}
        aria-valuenow={Math.round(at)}
        aria-valuetext={spoken(h, said)}
        title={`${h.name}: ${said}. Pull it, arrows move it by 1 px, Shift by 10, Alt to the next stop; Enter types`}
        style={style}
        {...bind()}
        onKeyDown={keys}
        onBlur={() => {
          if (!keyed.current) return;
          window.clearTimeout(timer.current);
          keyed.current = false;
          hand.drop();
        }}
      >
        <i />
      </button>
      {typing && (
        <Typed
          handle={h}
          style={style}
          done={(value) => {
            setTyping(false);
            if (value === undefined) return;
            hand.take(h, placeOf(h));
            hand.move({ value });
            hand.drop();
          }}
        />
      )}
    </>
  );
}

interface TypedProps {
  handle: HandleReading;
  style: React.CSSProperties;
  done: (value: number | undefined) => void;
}

/** The value as a number, in its own unit. */
function Typed({ handle: h, style, done }: TypedProps) {
  const [text, setText] = useState(String(Math.round(h.value * 100) / 100));
  return (
    <label className={classes.typed} style={style}>
      <span className="srOnly">{h.name}</span>
      <input
        // biome-ignore lint/a11y/noAutofocus: it was asked for by a key
        autoFocus
        inputMode="decimal"
        value={text}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => done(undefined)}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === "Escape") done(undefined);
          if (e.key !== "Enter") return;
          const value = Number(text.replace(",", "."));
          done(text.trim() && Number.isFinite(value) ? value : undefined);
        }}
      />
      <span>{h.unit === "ratio" ? ": 1" : h.unit}</span>
    </label>
  );
}

/**
 * The items of many pictures in their order: the chosen one is ringed; drag to reorder, drop or
 * choose originals to add.
 */
import { horizontalListSortingStrategy, useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { useEffect, useRef } from "react";
import type { Original } from "../api/queries";
import { plural } from "../ui/format";
import { placeId, Sorting } from "../ui/Sorting";
import { useWork } from "./context";
import { withCopy, withItems, withMoved, withoutItem } from "./draft";
import { ItemChooser } from "./ItemChooser";
import classes from "./ItemStrip.module.css";
import { usualAt, usualOf } from "./parts";

export function ItemStrip() {
  const { handle, reading, choosePart, originals } = useWork();
  const parts = usualOf(handle.draft.placement.parts);
  const chosen = usualAt(handle.draft.placement.parts, handle.part);
  const widest = reading.spans.at(-1)?.letter ?? "A";
  const byId = new Map(originals.map((o) => [o.id, o]));
  const move = (from: number, to: number) => {
    if (to < 0 || to >= parts.length || from === to) return;
    handle.change((d) => withMoved(d, from, to));
    choosePart(to);
  };
  const pictures = parts.map((p) => {
    const letters = Object.keys(p.treatments).sort().reverse();
    const id = letters.flatMap((l) => p.treatments[l]?.original ?? [])[0];
    return id === undefined ? undefined : byId.get(id);
  });
  const remove = (at: number) => {
    handle.change((d) => withoutItem(d, at));
    choosePart(Math.max(0, Math.min(at, parts.length - 2)));
  };
  return (
    <div className={classes.bar}>
      <Sorting
        names={pictures.map((o, i) => nameOf(o, i))}
        strategy={horizontalListSortingStrategy}
        move={move}
        keys={false}
        distance={6}
      >
        <div className={classes.strip} role="tablist" aria-label="Items">
          {pictures.map((original, i) => (
            <Thumb
              key={placeId(i)}
              at={i}
              of={parts.length}
              original={original}
              chosen={i === chosen}
              findings={reading.items?.items[i]?.findings ?? 0}
              choose={choosePart}
              move={move}
              remove={remove}
            />
          ))}
        </div>
      </Sorting>
      <div className={classes.says}>
        <b>
          {chosen + 1} of {parts.length}
        </b>
        <ItemChooser
          add={(added) =>
            handle.change((d) =>
              withItems(
                d,
                widest,
                added.map((o) => ({ id: o.id, look: { focal: o.focal, areas: o.areas } })),
              ),
            )
          }
        />
        <button
          type="button"
          className="plain"
          title="The same once more with all its rules; another original can take its place in Aim"
          onClick={() => {
            handle.change((d) => withCopy(d, chosen));
            choosePart(chosen + 1);
          }}
        >
          copy
        </button>
        <button type="button" className="plain" onClick={() => remove(chosen)}>
          remove
        </button>
      </div>
    </div>
  );
}

/** An item is its place: the same picture may be there twice. */
const nameOf = (original: Original | undefined, at: number) =>
  `Item ${at + 1}, ${original?.name ?? "no picture yet"}`;

interface ThumbProps {
  at: number;
  of: number;
  original: Original | undefined;
  chosen: boolean;
  findings: number;
  choose: (at: number) => void;
  move: (from: number, to: number) => void;
  remove: (at: number) => void;
}

function Thumb({ at, of, original, chosen, findings, choose, move, remove }: ThumbProps) {
  const { setNodeRef, listeners, transform, transition } = useSortable({ id: placeId(at) });
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (chosen) button.current?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [chosen]);
  const name = original?.name ?? "no picture yet";
  return (
    <button
      ref={(e) => {
        setNodeRef(e);
        button.current = e;
      }}
      type="button"
      role="tab"
      className={classes.thumb}
      aria-selected={chosen}
      tabIndex={chosen ? 0 : -1}
      aria-label={`Item ${at + 1} of ${of}: ${name}${findings ? `, ${plural(findings, "finding")}` : ""}`}
      title={`${name}. Arrows choose, Alt with arrows moves, Delete removes.`}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      onClick={() => choose(at)}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key];
        if (e.key === "Delete") remove(at);
        else if (by && e.altKey) move(at, at + by);
        else if (by && at + by >= 0 && at + by < of) {
          choose(at + by);
          const next =
            by > 0 ? e.currentTarget.nextElementSibling : e.currentTarget.previousElementSibling;
          (next as HTMLElement | null)?.focus();
        } else return;
        e.preventDefault();
      }}
      {...listeners}
    >
      {original ? (
        <img src={original.thumb} alt="" loading="lazy" draggable={false} />
      ) : (
        <span>?</span>
      )}
      {findings > 0 && <b>{findings}</b>}
    </button>
  );
}

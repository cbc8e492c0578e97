/**
 * An order that is dragged, by mouse, touch or keys (Space takes hold, arrows move, Space lets go),
 * and told in words.
 */
import {
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  SortableContext,
  type SortingStrategy,
  sortableKeyboardCoordinates,
  useSortable,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { IconGripVertical } from "@tabler/icons-react";
import { createContext, type ReactNode, useContext, useId } from "react";
import classes from "./Sortable.module.css";

interface Props {
  /** What each is called, in the order that stands. */
  names: readonly string[];
  strategy: SortingStrategy;
  move: (from: number, to: number) => void;
  /** Whether the rows are moved by keys here; else they have keys of their own. */
  keys?: boolean;
  /** A press that moves less chooses, in px. */
  distance?: number;
  children: ReactNode;
}

const Prefix = createContext("");

/** A place in the order is its own name for dragging: names may be typed while it stands. */
export const placeId = (index: number) => `${index}`;

const announced = (names: readonly string[]): Announcements => {
  const name = (id: string | number) => names[Number(id)] ?? "";
  const place = (id: string | number) => `${Number(id) + 1} of ${names.length}`;
  return {
    onDragStart: ({ active }) => `${name(active.id)} taken, ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)}: ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      over
        ? `${name(active.id)} is now ${place(over.id)}.`
        : `${name(active.id)} stays ${place(active.id)}.`,
    onDragCancel: ({ active }) => `${name(active.id)} stays ${place(active.id)}.`,
  };
};

const INSTRUCTIONS = {
  draggable: "Space takes hold, the arrow keys move, Space lets go, Escape leaves it where it was.",
};

export function Sorting({ names, strategy, move, keys = true, distance = 3, children }: Props) {
  const prefix = useId();
  const pointer = useSensor(PointerSensor, { activationConstraint: { distance } });
  const keyboard = useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates });
  const sensors = useSensors(pointer, keys ? keyboard : undefined);
  const drop = ({ active, over, activatorEvent }: DragEndEvent) => {
    if (!over) return;
    if (active.id !== over.id) move(Number(active.id), Number(over.id));
    // the hold goes along with what was moved
    if (activatorEvent instanceof KeyboardEvent)
      requestAnimationFrame(() => document.getElementById(`${prefix}${over.id}`)?.focus());
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{
        announcements: announced(names),
        screenReaderInstructions: INSTRUCTIONS,
        restoreFocus: false,
        // inside of a table or a list its texts have no place
        container: document.body,
      }}
    >
      <SortableContext items={names.map((_, i) => placeId(i))} strategy={strategy}>
        <Prefix.Provider value={prefix}>{children}</Prefix.Provider>
      </SortableContext>
    </DndContext>
  );
}

/** What a row that can be moved needs: where it hangs, and its grip. */
export function useSorted(index: number, name: string) {
  const prefix = useContext(Prefix);
  const id = placeId(index);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } =
    useSortable({ id });
  return {
    row: { ref: setNodeRef, style: { transform: CSS.Translate.toString(transform), transition } },
    grip: (
      <button
        type="button"
        ref={setActivatorNodeRef}
        className={classes.grip}
        {...attributes}
        {...listeners}
        id={`${prefix}${id}`}
        aria-label={`Move ${name}`}
      >
        <IconGripVertical size={14} />
      </button>
    ),
  };
}

/** The list with one item moved. */
export function reordered<T>(items: readonly T[], from: number, to: number): T[] {
  const out = [...items];
  const [one] = out.splice(from, 1);
  if (one !== undefined) out.splice(to, 0, one);
  return out;
}

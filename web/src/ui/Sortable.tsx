/** A list whose order is dragged, by mouse, touch or keys (Space takes hold, arrows move, Space lets go). */
import {
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
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { IconGripVertical } from "@tabler/icons-react";
import type { ReactNode } from "react";
import classes from "./Sortable.module.css";

interface Props<T> {
  items: readonly T[];
  name: (item: T) => string;
  move: (from: number, to: number) => void;
  children: (item: T, index: number) => ReactNode;
}

export function Sortable<T>({ items, name, move, children }: Props<T>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 3 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  // a place in the list is its own name: names may be typed while the list stands
  const ids = items.map((_, i) => `${i}`);
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) move(Number(active.id), Number(over.id));
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={drop}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ol className={classes.list}>
          {items.map((item, i) => (
            <Row key={ids[i]} id={`${i}`} name={name(item)}>
              {children(item, i)}
            </Row>
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function Row({ id, name, children }: { id: string; name: string; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id });
  return (
    <li ref={setNodeRef} className={classes.row} style={{ transform: CSS.Transform.toString(transform), transition }}>
      <button
        type="button"
        ref={setActivatorNodeRef}
        className={classes.grip}
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
      >
        <IconGripVertical size={14} />
      </button>
      {children}
    </li>
  );
}

/** The list with one item moved. */
export function reordered<T>(items: readonly T[], from: number, to: number): T[] {
  const out = [...items];
  const [one] = out.splice(from, 1);
  if (one !== undefined) out.splice(to, 0, one);
  return out;
}

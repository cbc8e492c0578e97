/** A list whose order is dragged. */
import { verticalListSortingStrategy } from "@dnd-kit/sortable";
import type { ReactNode } from "react";
import classes from "./Sortable.module.css";
import { placeId, Sorting, useSorted } from "./Sorting";

interface Props<T> {
  items: readonly T[];
  name: (item: T) => string;
  move: (from: number, to: number) => void;
  children: (item: T, index: number) => ReactNode;
}

export function Sortable<T>({ items, name, move, children }: Props<T>) {
  return (
    <Sorting names={items.map(name)} strategy={verticalListSortingStrategy} move={move}>
      <ol className={classes.list}>
        {items.map((item, i) => (
          <Row key={placeId(i)} index={i} name={name(item)}>
            {children(item, i)}
          </Row>
        ))}
      </ol>
    </Sorting>
  );
}

function Row({ index, name, children }: { index: number; name: string; children: ReactNode }) {
  const { row, grip } = useSorted(index, name);
  return (
    <li {...row} className={classes.row}>
      {grip}
      {children}
    </li>
  );
}

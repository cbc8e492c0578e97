/** What the steps show of each kind that has values of its own: `fields.tsx` of its folder. */
import type { ReactNode } from "react";

export interface Fields {
  /** Its values, with how high its parts are put among them. */
  Fields: (props: { cells: ReactNode }) => ReactNode;
  /** What the height of a part is called. */
  height: string;
  /**
   * Whether it draws its pictures whole, where it says itself: there is no fit and no aim to
   * choose.
   */
  whole?: boolean;
  /** Whether what shows in portrait is chosen among its own values. */
  ownInstead?: boolean;
  /** What stands beside the table of spans. */
  Beside?: () => ReactNode;
  /** What it says of all captions beside their sizes. */
  Captions?: () => ReactNode;
}

const found = import.meta.glob<Fields>("./*/fields.tsx", { eager: true, import: "default" });
const NAME = /^\.\/(.*)\/fields\.tsx$/;

export const FIELDS: Record<string, Fields> = Object.fromEntries(
  Object.entries(found).map(([path, fields]) => [NAME.exec(path)?.[1] ?? path, fields]),
);

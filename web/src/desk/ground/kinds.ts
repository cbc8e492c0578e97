/** What Frame shows for each kind that has values of its own. */
import type { ReactNode } from "react";
import { BesideFields } from "./beside/BesideFields";
import { GridFields } from "./grid/GridFields";
import { LogoCuts } from "./logo/LogoCuts";
import { LogoFields } from "./logo/LogoFields";
import { SlidesFields } from "./slides/SlidesFields";

interface OfKind {
  /** Its values, with how high its parts are put among them. */
  Fields: (props: { cells: ReactNode }) => ReactNode;
  /** What the height of a part is called. */
  height: string;
  /** Whether it draws its pictures whole, where it says itself: there is no fit and no aim to choose. */
  whole?: boolean;
  /** What stands beside the table of spans. */
  Beside?: () => ReactNode;
}

export const KINDS: Record<string, OfKind> = {
  grid: { Fields: GridFields, height: "Cell height" },
  slides: { Fields: SlidesFields, height: "Slide height" },
  beside: { Fields: BesideFields, height: "Picture height" },
  logo: { Fields: LogoFields, height: "Box height", whole: true, Beside: LogoCuts },
};

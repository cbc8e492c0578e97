import "../../../../../core/skypane/kinds/grid/turns.js";
import type { Kind } from "../kinds";

declare global {
  interface Window {
    /** Begins a row that is turned by buttons, by the script that is delivered with it. */
    turning: (box: Element) => void;
  }
}

export default {
  name: "grid",
  order: 3,
  label: "a grid",
  help: "many pictures in cells, rows or columns, with captions",
  begin: (spot) => {
    for (const box of spot.querySelectorAll("[data-turns]")) window.turning(box);
  },
} satisfies Kind;

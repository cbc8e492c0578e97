import "../../../../../core/skypane/kinds/slides/slides.js";
import type { Kind } from "../kinds";

declare global {
  interface Window {
    /** Begins a slideshow, by the script that is delivered with it. */
    slideshow: (box: Element) => { go: (slide: number) => void; at: () => number };
  }
}

export default {
  name: "slides",
  order: 4,
  label: "a slideshow",
  help: "many pictures that take turns in one place",
  // slides stand at the one that is worked on
  begin: (spot, chosen) => {
    for (const box of spot.querySelectorAll("[data-slideshow]")) {
      const show = window.slideshow(box);
      if (chosen !== undefined && show.at() !== chosen) show.go(chosen);
    }
  },
  resting: "[data-slideshow] { --by-itself: no !important; --change-time: 0s !important; }",
} satisfies Kind;

import type { Kind } from "../kinds";

export default {
  name: "banner",
  order: 2,
  label: "a banner",
  help: "a picture that words, a mark or an inset lie on",
  forWords: true,
} satisfies Kind;

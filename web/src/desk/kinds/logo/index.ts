import type { Kind } from "../kinds";

export default {
  name: "logo",
  order: 6,
  label: "a logo",
  help: "in two to five cuts, the fullest that can be read",
} satisfies Kind;

import type { Kind } from "../kinds";

export default {
  name: "picture",
  order: 1,
  label: "a picture",
  help: "one, which fills its frame",
} satisfies Kind;

import type { Kind } from "../kinds";

export default {
  name: "beside",
  order: 5,
  label: "beside text",
  help: "one picture or several, each with its text",
} satisfies Kind;

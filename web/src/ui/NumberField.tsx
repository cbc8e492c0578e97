import { TextInput } from "@mantine/core";
import { useEffect, useState } from "react";
import { typed } from "./format";
import classes from "./NumberField.module.css";

/** `late`: taken with Enter, or when the field is left, and not while it is typed. */
type Props = {
  label: string;
  unit: string;
  before?: string;
  late?: boolean;
  least?: number;
  most?: number;
} & (
  | { optional: true; value: number | undefined; set: (v: number | undefined) => void }
  | { optional?: false; value: number; set: (v: number) => void }
);

/**
 * A number that can be typed freely; what is no number stays in the field with a sentence and is
 * not taken.
 */
export function NumberField(props: Props) {
  const { label, unit, before, value } = props;
  const [text, setText] = useState(value === undefined ? "" : String(value));
  useEffect(() => {
    setText((t) => (typed(t) === value ? t : value === undefined ? "" : String(value)));
  }, [value]);
  const take = (next: string) => {
    setText(next);
    if (!props.late) put(next);
  };
  const put = (next: string) => {
    const n = typed(next);
    if (n !== undefined) {
      if (!outside(n, props.least, props.most)) props.set(n);
    } else if (props.optional && next.trim() === "") props.set(undefined);
  };
  const leave = () => {
    const n = typed(text);
    if (n === undefined || n === value) return;
    // what is taken may be another number: it stands there then
    setText(value === undefined ? "" : String(value));
    put(text);
  };
  const bad = text.trim() === "" ? !props.optional : typed(text) === undefined;
  const error = bad ? "a number" : outside(typed(text), props.least, props.most);
  return (
    <label className={classes.number}>
      {before && <span>{before}</span>}
      <TextInput
        aria-label={label}
        value={text}
        error={error}
        onChange={(e) => take(e.currentTarget.value)}
        onBlur={props.late ? leave : undefined}
        onKeyDown={(e) => props.late && e.key === "Enter" && leave()}
        inputMode="decimal"
        styles={{ input: { width: 58, textAlign: "right" }, error: { fontSize: 11 } }}
      />
      <span>{unit}</span>
    </label>
  );
}

/** What a number outside its bounds would have to be. */
function outside(n: number | undefined, least = -Infinity, most = Infinity): string | undefined {
  if (n === undefined || (least <= n && n <= most)) return undefined;
  if (most === Infinity) return `at least ${least}`;
  return least === -Infinity ? `at most ${most}` : `${least} to ${most}`;
}

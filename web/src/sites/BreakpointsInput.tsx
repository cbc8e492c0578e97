import { TextInput } from "@mantine/core";

/** Numbers out of "599, 1023 1599"; what is no number becomes NaN, which the server answers with a sentence. */
export const parseBreakpoints = (text: string): number[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);

export function BreakpointsInput({
  value,
  onChange,
  error,
}: {
  value: string;
  onChange: (v: string) => void;
  error?: string;
}) {
  const bad = parseBreakpoints(value).some(Number.isNaN)
    ? "Write whole numbers of px, with commas between."
    : undefined;
  return (
    <TextInput
      label="Breakpoints"
      description="The last width of each span, in CSS px; the widest span needs none."
      value={value}
      onChange={(e) => onChange(e.currentTarget.value)}
      error={bad ?? error}
      classNames={{ input: "num" }}
    />
  );
}

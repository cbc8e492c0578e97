import { TextInput } from "@mantine/core";
import { range } from "../ui/format";
import { Letter } from "../ui/Letter";

/**
 * Numbers out of "599, 1023 1599"; what is no number becomes NaN, which the server answers with a
 * sentence.
 */
export const parseBreakpoints = (text: string): number[] =>
  text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number);

interface Props {
  value: string;
  onChange: (v: string) => void;
  error?: string;
  /** The viewport widths that the site is for. */
  narrowest?: number;
  widest?: number;
  /** Whether the spans are told under it. */
  tells?: boolean;
}

export function BreakpointsInput({
  value,
  onChange,
  error,
  narrowest = 320,
  widest = 2560,
  tells = true,
}: Props) {
  const posts = parseBreakpoints(value);
  const bad = posts.some((n) => !Number.isInteger(n))
    ? "Write whole numbers of px, with commas between."
    : undefined;
  return (
    <div>
      <TextInput
        label="Breakpoints"
        description="The last width of each span, in CSS px, in any order; the widest span needs none."
        value={value}
        onChange={(e) => onChange(e.currentTarget.value)}
        error={bad ?? error}
        classNames={{ input: "num" }}
      />
      {!bad && tells && (
        <div
          className="soft"
          style={{
            display: "flex",
            flexWrap: "wrap",
            gap: "2px 12px",
            marginTop: 6,
            fontSize: 12.5,
          }}
        >
          {spansOf(posts, narrowest, widest).map(([letter, first, last]) => (
            <span key={letter}>
              <Letter of={letter} small /> {range(first, last, widest)}
            </span>
          ))}
        </div>
      )}
    </div>
  );
}

/** Letters and widths of the spans that breakpoints make, as they are typed. */
export function spansOf(
  posts: readonly number[],
  narrowest: number,
  widest: number,
): [string, number, number][] {
  const inside = [...new Set(posts)]
    .filter((n) => n >= narrowest && n < widest)
    .sort((a, b) => a - b);
  return [...inside, widest].map((last, i) => [
    String.fromCharCode(65 + i),
    i ? (inside[i - 1] as number) + 1 : narrowest,
    last,
  ]);
}

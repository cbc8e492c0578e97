import { SegmentedControl } from "@mantine/core";
import { NumberField } from "../ui/NumberField";
import classes from "./Settings.module.css";

/** SSIM that files reach, by word (see the core's TARGETS). */
const WORDS: Record<string, number> = { fine: 0.97, standard: 0.955, light: 0.935 };

/**
 * How like every file is to the picture without loss. The quality that takes is found file by file.
 */
export function LikenessField({ value, set }: { value: number; set: (value: number) => void }) {
  const word = Object.keys(WORDS).find((w) => WORDS[w] === value);
  return (
    <>
      <div className={classes.inline}>
        <SegmentedControl
          size="xs"
          aria-label="How like files are to the picture without loss"
          value={word ?? ""}
          onChange={(w) => set(WORDS[w] ?? value)}
          data={Object.keys(WORDS)}
        />
        <NumberField
          label="SSIM that every file reaches"
          before="SSIM at least"
          unit=""
          value={value}
          set={set}
        />
      </div>
      <p className="soft">
        The quality of each file is found: the fewest bytes whose structural similarity to the
        resample without loss is at least this. A newer format is left out where any file of it
        comes out no smaller.
      </p>
    </>
  );
}

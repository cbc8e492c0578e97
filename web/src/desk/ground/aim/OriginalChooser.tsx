import type { Look } from "../../../api/queries";
import { useWork } from "../../context";
import { OriginalWall } from "../../OriginalWall";
import { lookOf } from "../../useBringing";

interface Props {
  give: (id: number, look: Look) => void;
  bring: () => void;
  label: string;
  /** The one that is there; else what the chosen span shows. */
  chosen?: number | null;
}

/** One of the site's originals, for the chosen span. */
export function OriginalChooser({ give, bring, label, chosen }: Props) {
  const { span } = useWork();
  const there = chosen === undefined ? span.effective.original : chosen;
  return (
    <OriginalWall
      label={label}
      isChosen={(id) => id === there}
      choose={(o, close) => {
        give(o.id, lookOf(o));
        close();
      }}
      bring={(close) => {
        close();
        bring();
      }}
    />
  );
}

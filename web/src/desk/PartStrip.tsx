/** The parts of a placement in their order; the chosen one is worked on. */
import { useWork } from "./context";
import { ItemStrip } from "./ItemStrip";
import classes from "./PartStrip.module.css";

export function PartStrip() {
  const { handle, reading, choosePart } = useWork();
  const { parts } = handle.draft.placement;
  if (reading.items) return <ItemStrip />;
  if (parts.length < 2) return null;
  return (
    <div className={classes.strip} role="tablist" aria-label="Parts">
      {parts.map((p, i) => {
        const found = reading.findings.filter((f) => f.part === i).length;
        return (
          <button
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is its place
            key={i}
            type="button"
            role="tab"
            aria-selected={i === handle.part}
            onClick={() => choosePart(i)}
          >
            {p.role ?? (parts.some((other) => other.role === "portrait") ? "landscape" : "picture")}
            {found > 0 && (
              <b>
                {found}
                <span className="srOnly"> findings</span>
              </b>
            )}
          </button>
        );
      })}
    </div>
  );
}

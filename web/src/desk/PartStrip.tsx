/**
 * The parts of a placement in their order; the chosen one is worked on. Of an item those that stand
 * in for it.
 */
import { useWork } from "./context";
import { ItemStrip } from "./ItemStrip";
import classes from "./PartStrip.module.css";
import { usualAt, variantsOf } from "./parts";

export function PartStrip() {
  const { handle, reading } = useWork();
  const { parts } = handle.draft.placement;
  if (!reading.items) return <Tabs places={parts.map((_, i) => i)} name="Parts" />;
  const item = usualAt(parts, handle.part);
  return (
    <>
      <ItemStrip />
      <Tabs places={[item, ...variantsOf(parts, item)]} name="Pictures of the item" />
    </>
  );
}

function Tabs({ places, name }: { places: number[]; name: string }) {
  const { handle, reading, choosePart } = useWork();
  if (places.length < 2) return null;
  return (
    <div className={classes.strip} role="tablist" aria-label={name}>
      {places.map((i) => {
        const found = reading.findings.filter((f) => f.part === i).length;
        return (
          <button
            key={i}
            type="button"
            role="tab"
            aria-selected={i === handle.part}
            onClick={() => choosePart(i)}
          >
            {reading.parts[i]?.called ?? "…"}
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

/**
 * Which spans the last step changed, with a way to keep it to the one that it was made in, or to
 * give it to all.
 */
import { enumerated } from "../../ui/format";
import { useWork } from "../context";
import { canAllHave } from "../lastSet";
import ground from "./Ground.module.css";

export function LastChange() {
  const { changed, reading, handle } = useWork();
  if (!changed) return null;
  const { touched, set, part, before } = changed;
  const { spans } = reading;
  const same = spans.filter((s) => !touched.includes(s.letter)).map((s) => s.letter);
  if (!touched.length)
    return <span className={ground.touched}>last change: nothing shows otherwise</span>;
  const isOne = !!set && touched.includes(set.letter);
  const follow = isOne ? touched.filter((l) => l !== set.letter).reverse() : [];
  return (
    <span
      className={ground.touched}
      title={
        same.length
          ? `${same.join(", ")} show exactly the same as before at every width.`
          : undefined
      }
    >
      {follow.length
        ? `${[set?.letter, ...follow].join(", ")} changed`
        : `last change: ${touched.join(", ")}${same.length ? `; ${same.join(", ")} identical` : ""}`}
      {isOne && follow.length > 0 && (
        <>
          {" · "}
          <button
            type="button"
            className="plain"
            title={`${enumerated(follow)} as before`}
            onClick={() => handle.edit({ kind: "only-there", part, before, ...set })}
          >
            only {set.letter}
          </button>
        </>
      )}
      {isOne && same.length > 0 && canAllHave(set, spans) && (
        <>
          {" · "}
          <button
            type="button"
            className="plain"
            title="The same at every width"
            onClick={() => handle.edit({ kind: "all-spans", part, ...set })}
          >
            all spans
          </button>
        </>
      )}
    </span>
  );
}

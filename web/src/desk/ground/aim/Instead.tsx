/** What shows in the place of the picture under conditions. */
import { Menu, Select } from "@mantine/core";
import type { RefObject } from "react";
import type { Look, Treatment } from "../../../api/queries";
import { capital } from "../../../ui/format";
import { later } from "../../../ui/later";
import { featuresOf, under, whenWords } from "../../conditions";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import { SETS, usualAt, variantAt, variantsOf, type When } from "../../parts";
import { useVariant } from "../useVariant";
import { ValueRow } from "../ValueRow";
import classes from "./Aim.module.css";
import { OriginalChooser } from "./OriginalChooser";

type OpenFiles = RefObject<(() => void) | null>;

/** The sets of conditions under which something shows in the place of a part, or that are seen. */
export function useSets() {
  const { handle, conditions } = useWork();
  const { parts } = handle.draft.placement;
  const there = variantsOf(parts, usualAt(parts, handle.part)).map((i) => parts[i]?.when ?? []);
  const seen = featuresOf(conditions);
  const names = new Set([...there, seen].map((when) => when.join()));
  const shown = SETS.filter((when) => names.has(when.join()));
  return { shown, rest: SETS.filter((when) => !names.has(when.join())) };
}

/** The conditions under which nothing else shows yet: chosen, the page is seen under them. */
export function AnotherWhen({ label, sets }: { label: string; sets: When[] }) {
  const { setConditions, conditions } = useWork();
  return (
    <Menu position="bottom-start" withinPortal>
      <Menu.Target>
        <button type="button" className="plain">
          {label}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {sets.map((when) => (
          <Menu.Item key={when.join()} onClick={() => setConditions(under(when, conditions))}>
            {whenWords(when)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  );
}

export function Instead({ openFiles }: { openFiles: OpenFiles }) {
  const { handle, choosePart } = useWork();
  const { shown, rest } = useSets();
  const { parts } = handle.draft.placement;
  const part = partOf(handle.draft, handle.part);
  if (part.of != null)
    return (
      <div className={classes.stands}>
        {capital(whenWords(part.when ?? []))} this shows in the place of the picture.{" "}
        <button
          type="button"
          className="plain"
          onClick={() => choosePart(usualAt(parts, handle.part))}
        >
          the picture
        </button>
      </div>
    );
  return (
    <>
      {shown.map((when) => (
        <InsteadRow key={when.join()} when={when} openFiles={openFiles} />
      ))}
      <Versions />
      <div className={classes.stands}>
        <AnotherWhen label="Another picture when…" sets={rest} />
      </div>
    </>
  );
}

const Version = later(
  () => import("./Version").then((m) => m.Version),
  () => null,
);

/** Versions of the picture that show nowhere in its place yet. */
function Versions() {
  const { handle, reading, originals, span } = useWork();
  const at = usualAt(handle.draft.placement.parts, handle.part);
  const usually = reading.parts[at]?.spans.find((s) => s.letter === span.letter)?.effective;
  const there = handle.draft.placement.parts;
  const found = originals.filter(
    (o) =>
      o.version_of != null &&
      o.version_of === usually?.original &&
      usually.show === "picture" &&
      variantAt(there, at, o.version_when) < 0,
  );
  return found.map((o) => <Version key={o.id} original={o} />);
}

const MODES = [
  { value: "usual", label: "as usual" },
  { value: "same", label: "the same, aimed otherwise" },
  { value: "other", label: "another picture" },
  { value: "colour", label: "only colour" },
  { value: "nothing", label: "nothing" },
];

function InsteadRow({ when, openFiles }: { when: When; openFiles: OpenFiles }) {
  const { handle, reading, originals, span, choosePart } = useWork();
  const { index, shown, shows, own, from, say, usual, reset } = useVariant(when);
  const at = usualAt(handle.draft.placement.parts, handle.part);
  const usually = reading.parts[at]?.spans.find((s) => s.letter === span.letter)?.effective;
  const isSame = shows === "picture" && shown === usually?.original;
  const mode = shows === "picture" ? (isSame ? "same" : "other") : shows;
  const name = originals.find((o) => o.id === shown)?.name ?? "a picture that is gone";
  const label = capital(whenWords(when));
  const give = (original: number, look: Look) =>
    say({ show: "picture", original } as Treatment, { [original]: look });
  const work = (place: number | undefined) => {
    if (place !== undefined && place >= 0) choosePart(place);
    return place;
  };
  // the part is there once it has been said, and files go to the part that is worked on
  const bring = async () => {
    if (work(await say({ show: "picture" })) !== undefined) openFiles.current?.();
  };
  const set = async (value: string | null) => {
    if (value === "usual") return usual();
    if (value === "colour" || value === "nothing") return say({ show: value });
    if (value === "same" && usually?.original)
      return work(await say({ show: "picture", original: usually.original } as Treatment));
  };
  return (
    <ValueRow label={label} spots={["when"]} own={own} from={from} reset={reset}>
      <Select
        size="xs"
        w={176}
        aria-label={`What shows ${whenWords(when)}`}
        allowDeselect={false}
        value={mode}
        onChange={set}
        data={MODES.filter(
          (m) =>
            (m.value !== "other" || mode === "other") && (m.value !== "same" || usually?.original),
        )}
      />
      {mode === "other" && <span className={classes.file}>{name}</span>}
      <OriginalChooser
        give={give}
        bring={bring}
        label={mode === "other" ? "Change…" : "Another…"}
        chosen={mode === "other" ? shown : null}
      />
      {shows === "picture" && (
        <button type="button" className="plain" onClick={() => choosePart(index)}>
          aim it
        </button>
      )}
    </ValueRow>
  );
}

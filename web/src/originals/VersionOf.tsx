/** Originals that belong together: the night version of another one, its upright one. */
import { Select } from "@mantine/core";
import { type Original, useDescribeOriginal, useOriginals } from "../api/queries";
import { whenWords } from "../desk/conditions";
import { SETS } from "../desk/parts";
import classes from "./Originals.module.css";

/** What is asked for first: most pairs are of day and night. */
const FIRST = "dark";

export function VersionOf({ siteId, original }: { siteId: number; original: Original }) {
  const describe = useDescribeOriginal(siteId);
  const all = useOriginals(siteId).data ?? [];
  const mine = all.filter((o) => o.version_of === original.id);
  if (mine.length > 0)
    return (
      <p className={classes.versions}>
        Has another version: {mine.map((o) => `${o.name} ${whenWords(o.version_when)}`).join(", ")}.
      </p>
    );
  const others = all.filter((o) => o.id !== original.id && o.version_of === null);
  const when = original.version_when.join() || FIRST;
  const set = (of: string | null, features = when) =>
    describe.mutate({
      id: original.id,
      version: of
        ? { of: Number(of), when: features.split(",") as Original["version_when"] }
        : null,
    });
  return (
    <>
      <Select
        size="sm"
        label="A version of"
        description="Where that one shows, this one is proposed for the condition."
        placeholder="none: it stands for itself"
        searchable
        limit={60}
        clearable
        value={original.version_of === null ? null : String(original.version_of)}
        onChange={(of) => set(of)}
        data={others.map((o) => ({ value: String(o.id), label: o.name }))}
        error={describe.error?.message}
      />
      {original.version_of !== null && (
        <Select
          size="sm"
          aria-label="When it shows in the place of that one"
          allowDeselect={false}
          value={when}
          onChange={(features) => features && set(String(original.version_of), features)}
          data={SETS.map((s) => ({ value: s.join(), label: whenWords(s) }))}
        />
      )}
    </>
  );
}

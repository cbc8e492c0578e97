/** Names that are asked for: of a new page or placement, of one that is renamed, of a copy. */
import { Button, Radio, Select, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useNavigate } from "react-router";
import {
  type PlacementBody,
  placementOf,
  useCopyPlacement,
  useMakePage,
  useMakePlacement,
  useOriginals,
  useRenamePage,
} from "../api/queries";
import { KINDS } from "../desk/kinds/kinds";
import { begun } from "../desk/useKind";

export type Asking =
  | { what: "page" }
  | { what: "rename"; id: number; title: string }
  | { what: "placement"; page: number }
  | { what: "copy"; id: number; name: string };

export const TITLES: Record<Asking["what"], string> = {
  page: "New page",
  rename: "Rename the page",
  placement: "New placement",
  copy: "Duplicate with its rules",
};

const SAME = "the same pictures";
/**
 * Whether it is the first that a page shows is known where the page is, unless its kind says that
 * it is not.
 */
function unsaidLead<P extends { lead?: boolean }>({
  lead,
  ...placement
}: P): Omit<P, "lead"> & { lead?: boolean } {
  return lead === false ? { ...placement, lead } : placement;
}

export function Ask({
  siteId,
  asking,
  done,
}: {
  siteId: number;
  asking: Asking;
  done: () => void;
}) {
  const makePage = useMakePage(siteId);
  const rename = useRenamePage(siteId);
  const makePlacement = useMakePlacement(siteId);
  const copy = useCopyPlacement(siteId);
  const originals = useOriginals(siteId);
  const navigate = useNavigate();
  const [text, setText] = useState(
    asking.what === "rename" ? asking.title : asking.what === "copy" ? `${asking.name} 2` : "",
  );
  const [original, setOriginal] = useState<string>(SAME);
  const [kind, setKind] = useState("picture");
  const [refused, setRefused] = useState<string>();
  const error = makePage.error ?? rename.error ?? makePlacement.error ?? copy.error;
  const isPending =
    makePage.isPending || rename.isPending || makePlacement.isPending || copy.isPending;
  const toDesk = (p: { id: number }) => navigate(`/sites/${siteId}/placements/${p.id}/aim`);
  const make = async (page: number) => {
    setRefused(undefined);
    try {
      const bare = placementOf(text, {});
      const placement =
        kind === "picture"
          ? bare
          : await begun(siteId, kind, { placement: bare as PlacementBody, looks: {} });
      makePlacement.mutate({ page, placement: unsaidLead(placement) }, { onSuccess: toDesk });
    } catch (problem) {
      setRefused((problem as Error).message);
    }
  };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (asking.what === "page") makePage.mutate(text, { onSuccess: done });
    else if (asking.what === "rename")
      rename.mutate({ id: asking.id, title: text }, { onSuccess: done });
    else if (asking.what === "copy") {
      const other = original === SAME ? undefined : Number(original);
      copy.mutate({ id: asking.id, name: text, original: other }, { onSuccess: toDesk });
    } else void make(asking.page);
  };
  return (
    <form onSubmit={submit} style={{ display: "grid", gap: 12 }}>
      <TextInput
        label={
          asking.what === "placement" || asking.what === "copy"
            ? "Name, which files will bear too"
            : "Title"
        }
        data-autofocus
        required
        maxLength={80}
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        error={refused ?? error?.message}
      />
      {asking.what === "placement" && (
        <Radio.Group label="It is" value={kind} onChange={setKind}>
          <div style={{ display: "grid", gap: 6, marginTop: 6 }}>
            {KINDS.map((k) => (
              <Radio key={k.name} value={k.name} label={k.label} description={k.help} />
            ))}
          </div>
        </Radio.Group>
      )}
      {asking.what === "copy" && (
        <Select
          label="It shows"
          searchable
          allowDeselect={false}
          value={original}
          onChange={(v) => setOriginal(v ?? SAME)}
          data={[
            SAME,
            ...(originals.data ?? []).map((o) => ({ value: String(o.id), label: o.name })),
          ]}
          description="Frames, fit and aim stay; a crop and the choice of areas go with the picture."
        />
      )}
      <Button type="submit" loading={isPending}>
        {asking.what === "rename" ? "Rename" : asking.what === "copy" ? "Duplicate" : "Make it"}
      </Button>
    </form>
  );
}

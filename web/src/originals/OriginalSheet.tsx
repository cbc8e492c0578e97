/** One original, opened to its map: what matters in it, what it is, where it is used. */
import { Button, Checkbox, TagsInput, Textarea } from "@mantine/core";
import { useHotkeys } from "@mantine/hooks";
import { type ReactNode, useRef, useState } from "react";
import type { ProblemError } from "../api/client";
import {
  type Original,
  useDescribeOriginal,
  useRemoveOriginal,
  useReplaceOriginal,
  useTrimOriginal,
} from "../api/queries";
import { AreaList } from "../picture/AreaList";
import { MapTools, useMapTools } from "../picture/MapTools";
import { PictureMap } from "../picture/PictureMap";
import { SuggestionBar, useSuggestion } from "../picture/Suggest";
import { bytes, size } from "../ui/format";
import classes from "./Originals.module.css";
import { useLook } from "./useLook";

interface Props {
  siteId: number;
  original: Original;
  tags: string[];
  close: () => void;
  /** What came of the last new file: it outlives the sheet, which begins anew with the file. */
  said: string | undefined;
  say: (said: string | undefined) => void;
}

export function OriginalSheet({ siteId, original, tags, close, said, say }: Props) {
  const handle = useLook(siteId, original);
  const { look, state } = handle;
  const tools = useMapTools();
  const suggestion = useSuggestion(original.id);
  useHotkeys([
    ["mod+Z", handle.undo],
    ["mod+shift+Z", handle.redo],
    ["mod+Y", handle.redo],
  ]);
  return (
    <div className={classes.sheet}>
      <div className={classes.sheetBar}>
        <MapTools {...tools} />
        <Button variant="default" onClick={suggestion.ask}>
          Suggest…
        </Button>
        <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
          Undo
        </Button>
        <Button variant="default" onClick={handle.redo} disabled={!handle.canRedo}>
          Redo
        </Button>
        <span className="soft" role="status">
          {state.kind === "saved" ? "Saved" : state.kind === "saving" ? "Saving…" : "Not saved"}
        </span>
        {state.kind === "failed" && <span className={classes.missing}>{state.said}</span>}
        {state.kind === "conflict" && (
          <span role="alert" className={classes.sheetBar}>
            {state.said}
            <Button onClick={() => handle.keepMine(state.theirs)}>Keep mine</Button>
            <Button variant="default" onClick={() => handle.takeTheirs(state.theirs)}>
              Take theirs
            </Button>
          </span>
        )}
        {suggestion.failed && (
          <span role="alert" className={classes.missing}>
            {suggestion.failed}
          </span>
        )}
        {suggestion.found && (
          <SuggestionBar
            suggestion={suggestion.found}
            look={look}
            setFocal={(focal) => handle.change({ focal })}
            setAreas={(areas) => handle.change({ areas })}
            dismiss={suggestion.dismiss}
          />
        )}
      </div>
      <div className={classes.sheetMap}>
        <PictureMap
          original={original}
          look={look}
          spans={[]}
          cursor={0}
          moveFocal={(focal, group) => handle.change({ focal }, group)}
          setAreas={(areas, group) => handle.change({ areas }, group)}
          settle={handle.settle}
          {...tools.map}
          suggestion={suggestion.found}
        />
      </div>
      <div className={classes.sheetFacts}>
        <AreaList areas={look.areas ?? []} set={(areas, group) => handle.change({ areas }, group)} />
        <Words siteId={siteId} original={original} tags={tags} />
        <dl>
          <dt>Size</dt>
          <dd>
            {size(original.width_px, original.height_px)}, {bytes(original.size_bytes)}, ratio{" "}
            {(original.width_px / original.height_px).toFixed(2)}:1
          </dd>
          <dt>Sharp to</dt>
          <dd>
            {original.sharp_2x} px wide at 2x, {original.sharp_1x} px at 1x
          </dd>
          <dt>Kind</dt>
          <dd>
            {original.format.toUpperCase()}
            {original.alpha ? ", with transparency" : ""}, {original.profile || "no profile, taken for sRGB"}
          </dd>
          <dt>Used in</dt>
          <dd>{original.used_in?.length ? original.used_in.join("; ") : "nothing yet"}</dd>
        </dl>
        {original.notes.map((n) => (
          <p key={n}>{n}</p>
        ))}
        <FileActions siteId={siteId} original={original} close={close} said={said} say={say} />
      </div>
    </div>
  );
}

function Words({ siteId, original, tags }: { siteId: number; original: Original; tags: string[] }) {
  const describe = useDescribeOriginal(siteId);
  const [alt, setAlt] = useState(original.alt ?? "");
  const decorative = original.alt === "";
  return (
    <>
      <Textarea
        label="Alt text"
        description="What it shows, for people who do not see it."
        autosize
        minRows={2}
        value={decorative ? "" : alt}
        disabled={decorative}
        onChange={(e) => setAlt(e.currentTarget.value)}
        onBlur={() =>
          alt.trim() !== (original.alt ?? "") && describe.mutate({ id: original.id, alt: alt.trim() || null })
        }
        error={describe.error?.message}
      />
      <Checkbox
        label="Decorative on purpose"
        checked={decorative}
        onChange={(e) => describe.mutate({ id: original.id, alt: e.currentTarget.checked ? "" : alt.trim() || null })}
      />
      <TagsInput
        label="Tags"
        data={tags}
        value={original.tags}
        maxTags={20}
        onChange={(next) => describe.mutate({ id: original.id, tags: next })}
      />
    </>
  );
}

/** A better file, trimmed edges, removal: each says what it did, or why not. */
function FileActions({ siteId, original, close, said, say }: Omit<Props, "tags">) {
  const remove = useRemoveOriginal(siteId);
  const replace = useReplaceOriginal(siteId);
  const trim = useTrimOriginal(siteId);
  const chooser = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File>();
  const refused = replace.error as ProblemError | null;
  const asked = refused?.status === 409 && file;
  const send = (chosen: File, all_the_same: boolean) => {
    setFile(chosen);
    say(undefined);
    replace.mutate(
      { id: original.id, file: chosen, all_the_same },
      {
        onSuccess: (out) => say(out.said.length ? out.said.join(" ") : "Replaced. Areas and treatments fit as before."),
      },
    );
  };
  return (
    <>
      <div className={classes.sheetBar}>
        <input
          ref={chooser}
          type="file"
          hidden
          aria-label={`A better file for ${original.name}`}
          onChange={(e) => {
            const chosen = e.currentTarget.files?.[0];
            e.currentTarget.value = "";
            if (chosen) send(chosen, false);
          }}
        />
        <Button variant="default" loading={replace.isPending} onClick={() => chooser.current?.click()}>
          Replace the file…
        </Button>
        {original.trimmed ? (
          <Button
            variant="default"
            loading={trim.isPending}
            onClick={() => trim.mutate({ id: original.id, trim: false })}
          >
            Back to the untouched file
          </Button>
        ) : (
          original.alpha && (
            <Button
              variant="default"
              loading={trim.isPending}
              onClick={() => trim.mutate({ id: original.id, trim: true })}
            >
              Trim transparent edges
            </Button>
          )
        )}
        <Button variant="default" color="red" onClick={() => remove.mutate(original.id, { onSuccess: close })}>
          Remove
        </Button>
      </div>
      {asked ? (
        <Said>
          {refused.message}
          <Button onClick={() => send(file, true)}>Replace all the same</Button>
        </Said>
      ) : (
        refused && <Said>{refused.message}</Said>
      )}
      {said && <Said>{said}</Said>}
      {trim.error && <Said>{trim.error.message}</Said>}
      {remove.error && <Said>{remove.error.message}</Said>}
    </>
  );
}

const Said = ({ children }: { children: ReactNode }) => (
  <div role="alert" className={classes.said}>
    {children}
  </div>
);

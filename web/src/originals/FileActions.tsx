import { Button } from "@mantine/core";
import { type ReactNode, useRef, useState } from "react";
import type { ProblemError } from "../api/client";
import {
  type Original,
  useRemoveOriginal,
  useReplaceOriginal,
  useTrimOriginal,
} from "../api/queries";
import classes from "./Originals.module.css";

export interface FileProps {
  siteId: number;
  original: Original;
  close: () => void;
  /** What came of the last new file: it outlives the sheet, which begins anew with the file. */
  said: string | undefined;
  say: (said: string | undefined) => void;
}

/** A better file, trimmed edges, removal: each says what it did, or why not. */
export function FileActions({ siteId, original, close, said, say }: FileProps) {
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
        onSuccess: (out) =>
          say(
            out.said.length ? out.said.join(" ") : "Replaced. Areas and treatments fit as before.",
          ),
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
        <Button
          variant="default"
          loading={replace.isPending}
          onClick={() => chooser.current?.click()}
        >
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
        <Button
          component="a"
          variant="default"
          href={`/api/originals/${original.id}/sidecar`}
          title="Focal point and keep areas as XMP beside the picture"
        >
          Areas as sidecar
        </Button>
        {(original.format === "jpeg" || original.format === "png") && (
          <Button
            component="a"
            variant="default"
            href={`/api/originals/${original.id}/copy`}
            title="The same picture with focal point and keep areas in its metadata"
          >
            Copy with areas
          </Button>
        )}
        <Button
          variant="default"
          color="red"
          onClick={() => remove.mutate(original.id, { onSuccess: close })}
        >
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

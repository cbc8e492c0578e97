/** The site's originals, to add several as items at once; new files can be brought here too. */
import { Button } from "@mantine/core";
import { useRef, useState } from "react";
import type { Original } from "../api/queries";
import { Uploads } from "../originals/Uploads";
import { useUploads } from "../originals/useUploads";
import { plural } from "../ui/format";
import { useWork } from "./context";
import { OriginalWall } from "./OriginalWall";

/** `one`: what each of them is called. */
export function ItemChooser({
  add,
  one = "item",
}: {
  add: (chosen: Original[]) => void;
  one?: string;
}) {
  const { originals, site } = useWork();
  const [chosen, setChosen] = useState<number[]>([]);
  const input = useRef<HTMLInputElement>(null);
  const uploads = useUploads(site.id);
  const bring = async (files: File[]) => {
    const brought = await Promise.all(uploads.bring(files).map((u) => u.original));
    add(brought.flatMap((o) => o ?? []));
  };
  return (
    <>
      <OriginalWall
        label="Add…"
        several
        isChosen={(id) => chosen.includes(id)}
        choose={({ id }) =>
          setChosen(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id])
        }
        bring={(close) => {
          close();
          input.current?.click();
        }}
        foot={(close) => (
          <Button
            mt={10}
            disabled={!chosen.length}
            onClick={() => {
              add(chosen.flatMap((id) => originals.find((o) => o.id === id) ?? []));
              setChosen([]);
              close();
            }}
          >
            {chosen.length ? `Add ${plural(chosen.length, one)}` : "Add"}
          </Button>
        )}
      />
      <input
        ref={input}
        type="file"
        multiple
        hidden
        accept="image/*"
        aria-label="Bring items"
        onChange={(e) => {
          void bring([...(e.currentTarget.files ?? [])]);
        }}
      />
      <Uploads {...uploads} />
    </>
  );
}

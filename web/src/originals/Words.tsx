import { Checkbox, TagsInput, Textarea } from "@mantine/core";
import { useState } from "react";
import { type Original, useDescribeOriginal } from "../api/queries";

/** What is said of an original: its alt text, and tags. */
export function Words({
  siteId,
  original,
  tags,
}: {
  siteId: number;
  original: Original;
  tags: string[];
}) {
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
          alt.trim() !== (original.alt ?? "") &&
          describe.mutate({ id: original.id, alt: alt.trim() || null })
        }
        error={describe.error?.message}
      />
      <Checkbox
        label="Decorative on purpose"
        checked={decorative}
        onChange={(e) =>
          describe.mutate({
            id: original.id,
            alt: e.currentTarget.checked ? "" : alt.trim() || null,
          })
        }
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

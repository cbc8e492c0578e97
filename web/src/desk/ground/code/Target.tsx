/** The element of the host that shows the placement, and what else rules for it would hit. */
import { Button, Textarea, TextInput } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../../../api/client";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import ground from "../Ground.module.css";
import classes from "./Host.module.css";

export function Target() {
  const { handle, site, error } = useWork();
  const { target } = handle.draft.placement;
  const [typed, setTyped] = useState(target);
  const [page, setPage] = useState("");
  const read = useMutation({
    mutationFn: () =>
      data(
        client.POST("/api/sites/{site_id}/hits", {
          params: { path: { site_id: site.id } },
          body: { page, selector: target },
        }),
      ),
  });
  const refused = error?.problem.errors?.find((e) => e.field.includes("target"))?.sentence;
  const take = () => {
    read.reset();
    if (typed.trim() !== target)
      // one that is refused is not a version of its own: it could never be kept
      handle.change((draft) => withPlacement(draft, { target: typed.trim() }), "target");
  };
  return (
    <div className={ground.card} data-spot="target">
      <TextInput
        size="xs"
        label="Element of the host, as a selector"
        placeholder=".hero > .image"
        value={typed}
        error={refused?.replace(/^[a-z_.]+: /, "")}
        maxLength={200}
        onChange={(e) => setTyped(e.currentTarget.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      <Textarea
        size="xs"
        mt={8}
        label="A page of the host, as HTML"
        description="To see what else the rules would hit. It is not kept."
        value={page}
        onChange={(e) => {
          read.reset();
          setPage(e.currentTarget.value);
        }}
        autosize
        minRows={1}
        maxRows={4}
        classNames={{ input: "num" }}
      />
      <Button
        size="compact-xs"
        variant="default"
        mt={8}
        disabled={!page.trim() || !target}
        loading={read.isPending}
        onClick={() => read.mutate()}
      >
        What do they hit?
      </Button>
      {read.data && (
        <div role="status" className={classes.hits}>
          {read.data.n === 0
            ? "Nothing in this page."
            : read.data.n === 1
              ? "This one alone:"
              : `${read.data.n} elements, all with the same picture:`}
          <ol>
            {read.data.first.map((hit, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: an element is its place in the page
              <li key={i}>
                <code>{hit.path}</code> {hit.words && <span className="soft">“{hit.words}”</span>}
              </li>
            ))}
          </ol>
          {read.data.n > read.data.first.length &&
            `and ${read.data.n - read.data.first.length} more`}
        </div>
      )}
      {read.error && <p role="alert">{read.error.message}</p>}
    </div>
  );
}

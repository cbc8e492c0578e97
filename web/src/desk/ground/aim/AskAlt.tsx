import { Button, TextInput } from "@mantine/core";
import { useState } from "react";
import { type Original, useDescribeOriginal } from "../../../api/queries";
import ground from "../Ground.module.css";
import classes from "./Aim.module.css";

/** Asked for as soon as a picture is here without words. */
export function AskAlt({ site, original }: { site: number; original: Original }) {
  const describe = useDescribeOriginal(site);
  const [text, setText] = useState("");
  return (
    <form
      className={ground.card}
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) describe.mutate({ id: original.id, alt: text.trim() });
      }}
    >
      <TextInput
        label={`What does ${original.name} show?`}
        placeholder="Alt text, for people who do not see it"
        value={text}
        maxLength={1000}
        onChange={(e) => setText(e.currentTarget.value)}
        error={describe.error?.message}
      />
      <div className={classes.row} style={{ marginTop: 8 }}>
        <Button type="submit" disabled={!text.trim()} loading={describe.isPending}>
          Keep the words
        </Button>
        <Button variant="default" onClick={() => describe.mutate({ id: original.id, alt: "" })}>
          It is decorative
        </Button>
      </div>
    </form>
  );
}

/** For hosts that give files their addresses: what they gave, pasted after uploading. */
import { Button, Textarea } from "@mantine/core";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { client, data } from "../api/client";
import type { PlanProps } from "./planProps";
import classes from "./Settings.module.css";

/** So many lines and names are told of one by one. */
const MOST_TOLD = 4;

export function UploadedFields({ plan, set, siteId }: PlanProps & { siteId: number }) {
  const [text, setText] = useState("");
  const { uploaded } = plan.hand_over;
  const put = (now: Record<string, string>) =>
    set({ hand_over: { ...plan.hand_over, uploaded: now } });
  const read = useMutation({
    mutationFn: (pasted: string) =>
      data(
        client.POST("/api/sites/{site_id}/uploaded", {
          params: { path: { site_id: siteId } },
          body: { text: pasted, before: uploaded },
        }),
      ),
    onSuccess: (found) => {
      put(found.addresses);
      if (found.unread.length === 0) setText("");
    },
  });
  const known = Object.keys(uploaded).length;
  const found = read.data;
  return (
    <>
      <Textarea
        label="Addresses that a host has given to files"
        description="A line for each, as they are copied there; beside a file's name, or ending in it. Empty: all are where the line above says."
        placeholder="https://files.example/2026/quay-2x.avif"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        autosize
        minRows={1}
        maxRows={6}
        size="xs"
        classNames={{ input: "num" }}
      />
      <div className={classes.inline}>
        <Button
          variant="default"
          disabled={!text.trim()}
          loading={read.isPending}
          onClick={() => read.mutate(text)}
        >
          Read the addresses
        </Button>
        {known > 0 && (
          <Button variant="default" onClick={() => put({})}>
            Forget all {known}
          </Button>
        )}
        <span role="status">
          {known > 0 &&
            (known === 1
              ? "1 file has its own address"
              : `${known} files have their own addresses`)}
          {found && found.missing.length > 0 && known > 0
            ? `, ${found.missing.length} of the site none yet: ${told(found.missing)}`
            : ""}
        </span>
      </div>
      {found && found.unread.length > 0 && (
        <p className={classes.refused} role="alert">
          {found.unread.length === 1 ? "This line names" : `${found.unread.length} lines name`} no
          file of this site: {told(found.unread)}
        </p>
      )}
      {read.error && (
        <p className={classes.refused} role="alert">
          {read.error.message}
        </p>
      )}
    </>
  );
}

const told = (of: readonly string[]) =>
  of.slice(0, MOST_TOLD).join(", ") + (of.length > MOST_TOLD ? " …" : "");

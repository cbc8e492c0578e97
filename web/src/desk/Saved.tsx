/** Whether what is on the desk is kept, and what to do where it is not. */
import { Button } from "@mantine/core";
import { useEffect, useState } from "react";
import { Tip } from "../ui/Tip";
import classes from "./Desk.module.css";
import type { DraftHandle } from "./useDraft";
import type { Saving } from "./useSaving";

const WORDS: Record<Saving["kind"], string> = {
  looking: "Only to look at",
  saved: "Saved",
  saving: "Saving…",
  waiting: "Saving…",
  refused: "Not saved",
  retrying: "Not saved yet",
  conflict: "Not saved",
};

/** An answer that is here sooner is not announced. */
const WORKING_MS = 300;

interface NoteProps {
  saving: Saving;
  again: () => void;
  /** What stands on the desk is being worked out anew. */
  working: boolean;
}

export function SavedNote({ saving, again, working }: NoteProps) {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!working) return setLong(false);
    const timer = setTimeout(() => setLong(true), WORKING_MS);
    return () => clearTimeout(timer);
  }, [working]);
  if (isLong && (saving.kind === "saved" || saving.kind === "looking"))
    return (
      <span className={classes.saved} role="status">
        working…
      </span>
    );
  if (saving.kind === "looking")
    return (
      <Tip label="You may look at this site and try things here; nothing of it is kept. Ask one of its owners.">
        <span className={classes.saved} data-kind={saving.kind} role="status">
          {WORDS.looking}
        </span>
      </Tip>
    );
  if (saving.kind === "retrying") {
    const { status, message } = saving.error;
    const silent = navigator.onLine ? "No answer, changes wait" : "Offline, changes wait";
    return (
      <span className={classes.saved} data-kind={saving.kind} role="status" title={message}>
        {status > 0 ? "Not saved yet, trying again" : silent}
      </span>
    );
  }
  return (
    <span className={classes.saved} data-kind={saving.kind} role="status">
      {saving.kind === "refused" ? (
        <Tip label={saving.error.message}>
          <button type="button" className="plain" onClick={again}>
            {WORDS.refused}
          </button>
        </Tip>
      ) : (
        WORDS[saving.kind]
      )}
    </span>
  );
}

/** Somebody else saved a newer version: both stand until one is chosen. */
export function Conflict({
  handle,
  conflict,
}: {
  handle: DraftHandle;
  conflict: Extract<Saving, { kind: "conflict" }>;
}) {
  const { theirs, said, differs } = conflict;
  return (
    <div className={classes.banner} role="alert">
      <span>
        {said} {differs.length > 0 && `Yours and theirs differ in: ${differs.join("; ")}. `}
        Nothing is overwritten until you choose.
      </span>
      <Button onClick={() => handle.keepMine(theirs)}>Keep mine</Button>
      <Button variant="default" onClick={() => handle.takeTheirs(theirs)}>
        Take theirs
      </Button>
    </div>
  );
}

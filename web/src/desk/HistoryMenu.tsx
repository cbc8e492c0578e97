/**
 * The versions of a placement, named by what changed, kept beyond the visit; a press goes to any of
 * them.
 */
import { Button, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useHistory } from "../api/queries";
import { Failure } from "../ui/states";
import classes from "./Desk.module.css";
import type { DraftHandle } from "./useDraft";

export function HistoryMenu({ placementId, handle }: { placementId: number; handle: DraftHandle }) {
  const [opened, { toggle, close }] = useDisclosure();
  const saved = handle.saving.kind === "saved" || handle.saving.kind === "looking";
  const history = useHistory(placementId, opened && saved);
  const versions = [...(history.data?.versions ?? [])].reverse();
  return (
    <Popover
      opened={opened}
      onChange={(o) => !o && close()}
      position="bottom-end"
      shadow="md"
      trapFocus
      width={320}
    >
      <Popover.Target>
        <Button variant="default" onClick={toggle} aria-expanded={opened}>
          History
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        {history.isError && <Failure error={history.error} again={() => history.refetch()} />}
        {(history.isPending || !saved) && !history.data && <span className="soft">Saving…</span>}
        <ol className={classes.history}>
          {versions.map((s) => (
            <li key={s.position}>
              <button
                type="button"
                className={classes.pastStep}
                aria-current={s.position === history.data?.at ? "step" : undefined}
                disabled={!saved}
                onClick={() => {
                  handle.goTo(s.position);
                  close();
                }}
              >
                <span>{s.what}</span>
                <time dateTime={s.made}>{when(s.made)}</time>
              </button>
            </li>
          ))}
        </ol>
      </Popover.Dropdown>
    </Popover>
  );
}

/** The time today, the day before that. */
function when(made: string): string {
  const at = new Date(made);
  const today = new Date().toDateString() === at.toDateString();
  return today
    ? at.toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" })
    : at.toLocaleDateString(undefined, { day: "numeric", month: "short" });
}

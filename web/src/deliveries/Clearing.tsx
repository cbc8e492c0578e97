/** What could go: runs that a later one stands in for, and files that nothing else refers to. */
import { Button, Modal } from "@mantine/core";
import { useClearDeliveries, useClearing } from "../api/deliveries";
import { bytes, plural } from "../ui/format";
import { Failure, Rows } from "../ui/states";
import classes from "./Deliveries.module.css";

export function Clearing({ siteId, close }: { siteId: number; close: () => void }) {
  const found = useClearing(siteId, true);
  const clear = useClearDeliveries(siteId);
  const told = found.data;
  return (
    <Modal opened onClose={close} title="Clear what is no longer needed">
      {found.isPending && <Rows n={2} />}
      {found.isError && <Failure error={found.error} again={() => found.refetch()} />}
      {told && told.deliveries.length === 0 && (
        <p>Nothing can go: every delivery is the latest of its kind.</p>
      )}
      {told && told.deliveries.length > 0 && (
        <>
          <p>
            {plural(told.deliveries.length, "delivery", "deliveries")} that a later one stands in
            for or that came to nothing, and {plural(told.files, "file")} that nothing else refers
            to: {bytes(told.size_bytes)}.
          </p>
          <ul className={classes.going}>
            {told.deliveries.map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
          {clear.error && (
            <p className={classes.refused} role="alert">
              {clear.error.message}
            </p>
          )}
          <Button
            color="red"
            loading={clear.isPending}
            onClick={() => clear.mutate(undefined, { onSuccess: close })}
          >
            Clear {bytes(told.size_bytes)}
          </Button>
        </>
      )}
    </Modal>
  );
}

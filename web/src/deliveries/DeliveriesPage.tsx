/** Export runs of the site, the latest first: begun for the whole site, compared, cleared. */
import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { Link, useParams } from "react-router";
import { isOpen, useDeliveries, useStartSiteDelivery } from "../api/deliveries";
import { useSite } from "../api/queries";
import { bytes, plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import { Clearing } from "./Clearing";
import classes from "./Deliveries.module.css";
import { DeliveryRow } from "./DeliveryRow";

export function DeliveriesPage() {
  const siteId = Number(useParams().siteId);
  const site = useSite(siteId);
  const runs = useDeliveries(siteId);
  const start = useStartSiteDelivery(siteId);
  const [clears, { open, close }] = useDisclosure();
  const done = runs.data?.filter((d) => d.state === "done") ?? [];
  const made = done.reduce((n, d) => n + d.total - d.reused, 0);
  const goes = runs.data?.some((d) => d.scope === "site" && isOpen(d.state));
  return (
    <>
      <Bar
        title="Deliveries"
        right={
          <>
            {(runs.data?.length ?? 0) > 1 && (
              <Button variant="default" onClick={open}>
                Clear…
              </Button>
            )}
            <Button
              onClick={() => start.mutate(undefined)}
              loading={start.isPending}
              disabled={goes}
            >
              Export the whole site
            </Button>
          </>
        }
      >
        {done.length > 0 && (
          <span className="soft">
            {plural(done.length, "delivery", "deliveries")}, {plural(made, "file")} made,{" "}
            {bytes(done.reduce((n, d) => n + d.size_bytes, 0))} handed over
          </span>
        )}
      </Bar>
      {start.error && (
        <div className={classes.refused} role="alert">
          {start.error.message}
        </div>
      )}
      {site.data && site.data.pages.length > 1 && (
        <div className={classes.pages}>
          <span className="soft">or one page:</span>
          {site.data.pages.map((p) => (
            <Button key={p.id} variant="subtle" onClick={() => start.mutate(p.id)}>
              {p.title}
            </Button>
          ))}
        </div>
      )}
      <div className={classes.list}>
        {runs.isPending && <Rows />}
        {runs.isError && <Failure error={runs.error} again={() => runs.refetch()} />}
        {runs.data?.length === 0 && (
          <Empty title="Nothing exported yet.">
            <span>Export the whole site here, or one placement in its Files step.</span>
            <Link to={`/sites/${siteId}/placements`}>To the placements</Link>
          </Empty>
        )}
        {runs.data?.map((d) => (
          <DeliveryRow key={d.id} siteId={siteId} run={d} />
        ))}
      </div>
      {clears && <Clearing siteId={siteId} close={close} />}
    </>
  );
}

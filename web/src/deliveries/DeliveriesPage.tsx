/** Export runs of the site, the latest first. */
import { Link, useParams } from "react-router";
import { useDeliveries } from "../api/queries";
import { bytes, plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Deliveries.module.css";
import { DeliveryRow } from "./DeliveryRow";

export function DeliveriesPage() {
  const siteId = Number(useParams().siteId);
  const runs = useDeliveries(siteId);
  const done = runs.data?.filter((d) => d.state === "done") ?? [];
  const made = done.reduce((n, d) => n + d.total - d.reused, 0);
  return (
    <>
      <Bar title="Deliveries">
        {done.length > 0 && (
          <span className="soft">
            {plural(done.length, "delivery", "deliveries")}, {plural(made, "file")} made,{" "}
            {bytes(done.reduce((n, d) => n + d.size_bytes, 0))} handed over
          </span>
        )}
      </Bar>
      <div className={classes.list}>
        {runs.isPending && <Rows />}
        {runs.isError && <Failure error={runs.error} again={() => runs.refetch()} />}
        {runs.data?.length === 0 && (
          <Empty title="Nothing exported yet.">
            <span>Open a placement and press Export in Files.</span>
            <Link to={`/sites/${siteId}/placements`}>To the placements</Link>
          </Empty>
        )}
        {runs.data?.map((d) => (
          <DeliveryRow key={d.id} siteId={siteId} run={d} />
        ))}
      </div>
    </>
  );
}

/**
 * What differs between a delivery and the one before it, file by file, both pictures side by side.
 */
import { useDeliveryChanges } from "../api/deliveries";
import { bytes } from "../ui/format";
import { Failure, Rows } from "../ui/states";
import classes from "./Deliveries.module.css";

const MOST = 60;

export function Changes({ delivery }: { delivery: number }) {
  const found = useDeliveryChanges(delivery, true);
  if (found.isPending) return <Rows n={1} />;
  if (found.isError) return <Failure error={found.error} again={() => found.refetch()} />;
  if (!found.data) return null;
  const { before, after, files, same } = found.data;
  const picture = (id: number, name: string, there: boolean) =>
    there ? (
      <img src={`/api/deliveries/${id}/tree/0/${name}`} alt="" loading="lazy" />
    ) : (
      <span className={classes.none}>not there</span>
    );
  return (
    <div className={classes.changes}>
      {files.slice(0, MOST).map((f) => (
        <figure key={f.name}>
          <div>
            {picture(before, f.name, f.before_bytes != null)}
            {picture(after, f.name, f.after_bytes != null)}
          </div>
          <figcaption>
            <code>{f.name.replace(/^images\//, "")}</code>
            <span data-change={f.change}>
              {f.change === "other" ? "other content" : f.change}
              {f.before_bytes != null && f.after_bytes != null
                ? `, ${bytes(f.before_bytes)} → ${bytes(f.after_bytes)}`
                : `, ${bytes(f.before_bytes ?? f.after_bytes ?? 0)}`}
            </span>
          </figcaption>
        </figure>
      ))}
      <p className="soft">
        {files.length > MOST && `${files.length - MOST} more differ. `}
        {same} {same === 1 ? "file is" : "files are"} the same to the byte.
      </p>
    </div>
  );
}

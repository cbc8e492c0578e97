/**
 * The site's pages and their placements, each a strip of what its spans show, with its findings.
 */
import { Button, Modal } from "@mantine/core";
import { useState } from "react";
import { Link, useParams } from "react-router";
import { usePlacements, useSite } from "../api/queries";
import { plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import { Ask, type Asking, TITLES } from "./Ask";
import { PageSection } from "./PageSection";
import classes from "./Placements.module.css";

export function PlacementsPage() {
  const siteId = Number(useParams().siteId);
  const site = useSite(siteId);
  const placements = usePlacements(siteId);
  const [asking, setAsking] = useState<Asking>();
  const failing =
    placements.data?.filter((p) => p.findings.some((f) => f.rule === "area")).length ?? 0;
  const failed = site.error ?? placements.error;
  return (
    <>
      <Bar
        title="Placements"
        right={<Button onClick={() => setAsking({ what: "page" })}>New page…</Button>}
      >
        {failing > 0 && (
          <Link to={`/sites/${siteId}/remedies`} className={classes.failing}>
            Something is cut in {plural(failing, "placement")}: remedies…
          </Link>
        )}
      </Bar>
      <div className={classes.pages}>
        {placements.isPending && <Rows n={4} height={96} />}
        {failed && <Failure error={failed} again={() => placements.refetch()} />}
        {site.data?.pages.length === 0 && (
          <Empty title="No page yet.">
            <span>Pages hold placements: the spots where pictures show, in reading order.</span>
            <Button onClick={() => setAsking({ what: "page" })}>New page…</Button>
          </Empty>
        )}
        {placements.data &&
          site.data?.pages.map((page) => (
            <PageSection
              key={page.id}
              siteId={siteId}
              page={page}
              placements={(placements.data ?? []).filter(
                (p) => p.page_id === page.id || p.also_on.includes(page.id),
              )}
              widest={site.data.spans.at(-1)?.letter ?? "A"}
              ask={setAsking}
            />
          ))}
      </div>
      <Modal
        opened={!!asking}
        onClose={() => setAsking(undefined)}
        title={asking && TITLES[asking.what]}
      >
        {asking && <Ask siteId={siteId} asking={asking} done={() => setAsking(undefined)} />}
      </Modal>
    </>
  );
}

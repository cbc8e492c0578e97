/**
 * One page of the site: its placements in reading order. A picture dropped on it becomes one more.
 */
import { Button, Skeleton } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useRef } from "react";
import { Link } from "react-router";
import type { Schemas, Told } from "../api/client";
import { useChangePage } from "../api/pages";
import { useRemovePage, useRemovePlacement } from "../api/queries";
import { Uploads } from "../originals/Uploads";
import { plural } from "../ui/format";
import type { Asking } from "./Ask";
import { Health } from "./Health";
import { More } from "./More";
import classes from "./Placements.module.css";
import { StripScreen } from "./StripFrame";
import { useDropped } from "./useDropped";

interface Props {
  siteId: number;
  page: Schemas["PageOut"];
  placements: Told<Schemas["PlacementRow"]>[];
  widest: string;
  ask: (asking: Asking) => void;
}

export function PageSection({ siteId, page, placements, widest, ask }: Props) {
  const removePage = useRemovePage(siteId);
  const remove = useRemovePlacement(siteId);
  const changePage = useChangePage(siteId, page.id);
  const openFiles = useRef<() => void>(null);
  const dropped = useDropped(siteId, page.id, widest);
  const failed =
    dropped.failed ??
    removePage.error?.message ??
    remove.error?.message ??
    changePage.error?.message;
  return (
    <Dropzone
      onDrop={dropped.bring}
      openRef={openFiles}
      activateOnClick={false}
      activateOnKeyboard={false}
      unstyled
      className={classes.drop}
      inputProps={{ "aria-label": `Bring pictures to ${page.title}` }}
    >
      <section className={classes.page} aria-label={page.title}>
        <header>
          <h2>
            <Link
              to={`/sites/${siteId}/pages/${page.id}`}
              title="The whole page, as visitors see it"
            >
              {page.title}
            </Link>
          </h2>
          <span className="soft">{plural(placements.length, "placement")}</span>
          <Button variant="subtle" onClick={() => ask({ what: "placement", page: page.id })}>
            + placement
          </Button>
          <Button variant="subtle" onClick={() => openFiles.current?.()}>
            + from pictures…
          </Button>
          <More
            label={`More for ${page.title}`}
            items={[
              ["Rename…", () => ask({ what: "rename", id: page.id, title: page.title })],
              [
                placements.length
                  ? `Remove with ${plural(placements.length, "placement")}`
                  : "Remove",
                () => removePage.mutate(page.id),
              ],
            ]}
          />
        </header>
        {placements.map((p) => (
          <div
            key={p.id}
            className={classes.row}
            data-old={!p.current || undefined}
            aria-busy={!p.current}
          >
            <div className={classes.shown}>
              <div className={classes.name}>
                <Link to={`/sites/${siteId}/placements/${p.id}/${p.step}`} className={classes.link}>
                  {p.name}
                </Link>
                {p.page_id !== page.id && <span className="soft">of {p.page}</span>}
                {p.pictures > 1 && (
                  <span className="soft">
                    {p.kind} of {p.pictures}
                  </span>
                )}
                {isKnown(p) && (
                  <Health
                    desk={`/sites/${siteId}/placements/${p.id}`}
                    findings={p.findings}
                    error={p.error ?? undefined}
                  />
                )}
              </div>
              <div className={classes.strip}>
                {!isKnown(p) && <Skeleton height={84} width={360} />}
                {p.strip.map((s) => (
                  <StripScreen key={s.letter} screen={s} />
                ))}
              </div>
            </div>
            <More
              label={`More for ${p.name}`}
              items={[
                ["Duplicate…", () => ask({ what: "copy", id: p.id, name: p.name })],
                p.page_id === page.id
                  ? ["Remove", () => remove.mutate(p.id)]
                  : [
                      "Not on this page",
                      () => changePage.mutate({ what: "leave", placement: p.id }),
                    ],
              ]}
            />
          </div>
        ))}
        <Uploads {...dropped.uploads} />
        {failed && (
          <div className={classes.going} data-state="refused" role="alert">
            {failed}
          </div>
        )}
        {placements.length === 0 && (
          <p className={classes.hint}>Drop pictures here: each becomes a placement.</p>
        )}
      </section>
    </Dropzone>
  );
}

/** Whether it has been worked out at all; until then nothing is said of it. */
const isKnown = (p: { current: boolean; strip: unknown[]; error: string | null }) =>
  p.current || p.strip.length > 0 || p.error !== null;

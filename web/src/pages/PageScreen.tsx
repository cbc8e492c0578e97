/**
 * A page of the site as visitors see it: one long preview at several widths, its fold, what is too
 * wide, what it weighs.
 */
import { useElementSize } from "@mantine/hooks";
import { useMemo } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { useChangePage, usePage } from "../api/pages";
import { heightAt, Scale, spanAt } from "../desk/scale";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import { ExportPage } from "./ExportPage";
import { LongPane } from "./LongPane";
import { PageAxis } from "./PageAxis";
import { PageOrder } from "./PageOrder";
import classes from "./Pages.module.css";

const WIDTHS = [360, 768, 1280];
const GAP = 20;
/**
 * How much of a pane's own width it keeps: narrow ones are drawn larger, so that they can be read.
 */
const POWER = 0.55;

export function PageScreen() {
  const siteId = Number(useParams().siteId);
  const pageId = Number(useParams().pageId);
  const page = usePage(pageId);
  const change = useChangePage(siteId, pageId);
  const [params, setParams] = useSearchParams();
  const { ref, width: room } = useElementSize();
  const reading = page.data?.reading;
  const scale = useMemo(
    () => new Scale(reading?.narrowest ?? 320, reading?.widest ?? 2560),
    [reading?.narrowest, reading?.widest],
  );
  if (page.isPending) return <Rows n={3} height={200} />;
  if (page.error) return <Failure error={page.error} again={() => page.refetch()} />;
  const told = page.data;
  if (!told) return null;
  if (!reading)
    return (
      <>
        <Bar title={told.title}>
          <Link to={`/sites/${siteId}/placements`}>all pages</Link>
        </Bar>
        <Rows n={3} height={200} />
      </>
    );
  const cursor = scale.clamp(Number(params.get("width")) || 900);
  const setCursor = (width: number) =>
    setParams({ width: String(scale.clamp(width)) }, { replace: true });
  const span = spanAt(reading.spans, cursor);
  const fixed = WIDTHS.filter((w) => w >= scale.narrowest && w <= scale.widest && w !== cursor);
  const widths = [...fixed, cursor].sort((a, b) => a - b);
  const parts = widths.map((w) => w ** POWER);
  const sum = parts.reduce((a, b) => a + b, 0);
  const left = room - GAP * (widths.length + 1);
  return (
    <>
      <Bar title={told.title} right={<ExportPage siteId={siteId} pageId={pageId} />}>
        <Link to={`/sites/${siteId}/placements`}>all pages</Link>
      </Bar>
      <div
        className={classes.whole}
        data-old={!told.current || undefined}
        aria-busy={!told.current}
      >
        <PageAxis reading={reading} scale={scale} cursor={cursor} setCursor={setCursor} />
        <div className={classes.both}>
          <div className={classes.sky} ref={ref}>
            {reading.placements.length === 0 && <Empty title="Nothing stands on this page yet." />}
            {room > 0 &&
              reading.placements.length > 0 &&
              widths.map((w, i) => (
                <LongPane
                  key={w === cursor ? "cursor" : w}
                  reading={reading}
                  width={w}
                  height={heightAt(reading, w)}
                  drawn={Math.min(w, (left * (parts[i] as number)) / sum)}
                  follows={w === cursor}
                  press={() => setCursor(w)}
                />
              ))}
          </div>
          {span && (
            <PageOrder
              siteId={siteId}
              page={{ ...told, reading }}
              letter={span.letter}
              change={change}
            />
          )}
        </div>
      </div>
    </>
  );
}

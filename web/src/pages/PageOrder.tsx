/**
 * What stands on the page in one span and in which order, its head, and what of other pages shows
 * here too.
 */
import { Select, Switch } from "@mantine/core";
import { Link } from "react-router";
import type { PageLayout, PageOnScreen, PageReading, useChangePage } from "../api/pages";
import { usePlacements } from "../api/queries";
import { Letter } from "../ui/Letter";
import { NumberField } from "../ui/NumberField";
import { Sortable } from "../ui/Sortable";
import classes from "./Pages.module.css";

interface Props {
  siteId: number;
  page: PageOnScreen & { reading: PageReading };
  letter: string;
  change: ReturnType<typeof useChangePage>;
}

export function PageOrder({ siteId, page, letter, change }: Props) {
  const { reading, ids } = page;
  const all = usePlacements(siteId).data ?? [];
  const span = reading.spans.find((s) => s.letter === letter);
  if (!span) return null;
  const set = (values: NonNullable<PageLayout>[string]) =>
    change.mutate({ what: "layout", letter, values });
  const reset = () => change.mutate({ what: "layout", letter, values: null });
  const move = (from: number, to: number) => {
    const order = [...span.order];
    const [moved] = order.splice(from, 1);
    if (moved === undefined) return;
    order.splice(to, 0, moved);
    set({ order });
  };
  const widest = reading.spans.at(-1);
  const isWidest = letter === widest?.letter;
  const others = all.filter((p) => !ids.includes(p.id));
  return (
    <div className={classes.order}>
      <h2>
        <Letter of={letter} /> {span.first}–{span.last}
        {span.own.length > 0 && (
          <button type="button" className="plain" onClick={reset}>
            {isWidest ? "reset to the page's own order" : "reset to the next wider span"}
          </button>
        )}
      </h2>
      <div className={classes.head}>
        <span>Head</span>
        <NumberField
          label={`Height of the page's head in span ${letter}`}
          unit="px high"
          value={span.head_px}
          set={(head_px) => set({ head_px })}
        />
        {span.head_px > 0 && (
          <Switch
            size="xs"
            label="the first placement slides under it"
            checked={span.head_over}
            onChange={(e) => set({ head_over: e.currentTarget.checked })}
          />
        )}
      </div>
      {change.error && (
        <p role="alert" className={classes.wide}>
          {change.error.message}
        </p>
      )}
      <Sortable items={span.order} name={(i) => reading.placements[i]?.name ?? ""} move={move}>
        {(i) => {
          const told = reading.placements[i];
          const id = ids[i] as number;
          const home = page.from_elsewhere[id];
          const shows = told?.shows.includes(letter) ?? false;
          const wide = reading.overflows.find(
            (o) => o.placement === i && o.last >= span.first && o.first <= span.last,
          );
          return (
            <div className={classes.item} data-off={!shows || undefined}>
              <Switch
                size="xs"
                aria-label={`${told?.name} shows in span ${letter}`}
                checked={shows}
                disabled={!!told?.error}
                onChange={(e) =>
                  change.mutate({
                    what: "seen",
                    placement: id,
                    letter,
                    shows: e.currentTarget.checked,
                  })
                }
              />
              <Link to={`/sites/${siteId}/placements/${id}/aim?span=${letter}`}>{told?.name}</Link>
              <span className="soft">{told?.kind}</span>
              {home && (
                <span className="soft">
                  of {home}{" "}
                  <button
                    type="button"
                    className="plain"
                    onClick={() => change.mutate({ what: "leave", placement: id })}
                  >
                    not here
                  </button>
                </span>
              )}
              {told?.error && <p role="alert">{told.error}</p>}
              {wide && (
                <p className={classes.wide}>
                  Wider than the page from {wide.first} to {wide.last} px, by {wide.by_px} px at{" "}
                  {wide.at}.
                </p>
              )}
            </div>
          );
        }}
      </Sortable>
      {widest && span.read_otherwise && (
        <p className="soft">
          Screen readers and the Tab key go in the order of {widest.letter} at every width; it is
          best not to differ much.
        </p>
      )}
      <LoadsFirst page={page} change={change} />
      <Select
        size="xs"
        searchable
        placeholder="Show a placement of another page here too…"
        aria-label="Show a placement of another page here too"
        value={null}
        data={others.map((p) => ({ value: String(p.id), label: `${p.page} · ${p.name}` }))}
        nothingFoundMessage="No other placement."
        onChange={(v) => v && change.mutate({ what: "home", placement: Number(v) })}
      />
    </div>
  );
}

/** Which of the placements loads before all others, and the one that had better. */
function LoadsFirst({ page, change }: Pick<Props, "page" | "change">) {
  const { lead, placements } = page.reading;
  if (placements.length === 0) return null;
  const better = lead.is_so || lead.proposed === null ? undefined : lead.proposed;
  return (
    <p className={lead.is_so ? "soft" : undefined}>
      {lead.sentence}{" "}
      {better !== undefined && (
        <button
          type="button"
          className="plain"
          disabled={change.isPending}
          onClick={() => change.mutate({ what: "lead", placement: page.ids[better] as number })}
        >
          Let {placements[better]?.name} load first
        </button>
      )}
    </p>
  );
}

/**
 * The cuts of a logo, the fullest first: down to which width each can be read, and where it is
 * called for.
 */
import { verticalListSortingStrategy } from "@dnd-kit/sortable";
import { Button, VisuallyHidden } from "@mantine/core";
import type { LogoValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { reordered, Sorting, useSorted } from "../../../ui/Sorting";
import { useWork } from "../../context";
import { type Draft, withLayout, withTreatment } from "../../draft";
import ground from "../../ground/Ground.module.css";
import { useKindValues } from "../../ground/useKindValues";
import { ItemChooser } from "../../ItemChooser";
import classes from "./Logo.module.css";
import { logoOf } from "./own";

type Cut = LogoValues["cuts"][number];
const MOST = 5;

export function LogoCuts() {
  const { handle, reading, originals, addPosts } = useWork();
  const { values, problem } = useKindValues<LogoValues>();
  const logo = logoOf(reading);
  const widest = reading.spans.at(-1)?.letter ?? "A";
  const cuts = (handle.draft.placement.layout[widest]?.cuts as Cut[] | undefined) ?? [];
  const put = (to: Cut[], name?: string) =>
    handle.change((d) => withLayout(d, widest, { cuts: to }), name);
  if (!values || !logo) return null;
  const nameOf = (cut: Cut) =>
    originals.find((o) => o.id === cut.original)?.name ?? "a picture that is gone";
  const wants = Object.entries(logo.wants);
  const show = (d: Draft) =>
    wants.reduce((e, [letter, original]) => withTreatment(e, 0, letter, { original }), d);
  return (
    <section
      className={`${ground.card} ${classes.cuts}`}
      aria-label="Cuts of the logo"
      data-spot="cuts"
    >
      <Sorting
        names={cuts.map(nameOf)}
        strategy={verticalListSortingStrategy}
        move={(from, to) => put(reordered(cuts, from, to))}
      >
        <table>
          <thead>
            <tr>
              <th scope="col">
                <VisuallyHidden>Order</VisuallyHidden>
              </th>
              <th scope="col">Cut, the fullest first</th>
              <th scope="col">Lettering</th>
              <th scope="col">Readable from</th>
              <th scope="col">Called for</th>
              <th scope="col">
                <VisuallyHidden>Remove</VisuallyHidden>
              </th>
            </tr>
          </thead>
          <tbody>
            {cuts.map((cut, i) => (
              <CutRow
                key={cut.original}
                cut={cut}
                at={i}
                name={nameOf(cut)}
                change={(values) =>
                  put(
                    cuts.map((c, k) => (k === i ? { ...c, ...values } : c)),
                    `lettering ${cut.original}`,
                  )
                }
                remove={() => put(cuts.filter((_, k) => k !== i))}
              />
            ))}
          </tbody>
        </table>
      </Sorting>
      {cuts.length < 2 && (
        <p>A logo has two to five cuts: the full one, shorter ones, and the symbol alone.</p>
      )}
      {problem("cuts") && <p role="alert">{problem("cuts")}</p>}
      <div className={classes.does}>
        <ItemChooser
          one="cut"
          add={(chosen) => {
            const more = chosen.filter((o) => !cuts.some((c) => c.original === o.id));
            const next = [
              ...cuts,
              ...more.map((o) => ({ original: o.id, lettering_percent: null })),
            ].slice(0, MOST);
            handle.change((d) => {
              const first = next[0];
              const shown = d.placement.parts[0]?.treatments[widest]?.original;
              const e = withLayout(d, widest, { cuts: next });
              return first && shown == null
                ? withTreatment(e, 0, widest, { original: first.original })
                : e;
            });
          }}
        />
        <NumberField
          label="Least height of lettering"
          before="lettering is read from"
          unit="px"
          value={values.least_px}
          set={(v) => handle.change((d) => withLayout(d, widest, { least_px: v }), "least px")}
        />
        {logo.breaks.length > 0 && (
          <Button size="compact-xs" variant="default" onClick={() => addPosts([...logo.breaks])}>
            Breakpoint{logo.breaks.length > 1 && "s"} at {logo.breaks.join(", ")}
          </Button>
        )}
        {wants.length > 0 && (
          <Button size="compact-xs" onClick={() => handle.change(show)}>
            Show the fullest that can be read
          </Button>
        )}
      </div>
    </section>
  );
}

interface CutProps {
  cut: Cut;
  at: number;
  name: string;
  change: (values: Partial<Cut>) => void;
  remove: () => void;
}

function CutRow({ cut, at, name, change, remove }: CutProps) {
  const { reading, originals } = useWork();
  const { row, grip } = useSorted(at, name);
  const original = originals.find((o) => o.id === cut.original);
  const told = logoOf(reading)?.cuts.find((c) => c.original === cut.original);
  return (
    <tr {...row}>
      <td className={classes.grip}>{grip}</td>
      <th scope="row" className={classes.name}>
        {original && <img src={original.thumb} alt="" />}
        <span title={name}>{name}</span>
      </th>
      <td className={classes.share}>
        <NumberField
          label={`Height of the lettering of ${name}, empty for none`}
          unit={cut.lettering_percent ? "% high" : "no lettering"}
          optional
          value={cut.lettering_percent ?? undefined}
          set={(v) => change({ lettering_percent: v || null })}
        />
      </td>
      <td className="num">
        {told ? (told.least_px ? `${Math.ceil(told.least_px)} px` : "any width") : "–"}
      </td>
      <td className="num">
        {told?.shows.length
          ? told.shows.map(([a, b]) => `${a}–${b}`).join(", ")
          : told?.in_portrait
            ? "in portrait"
            : "never"}
      </td>
      <td>
        <button
          type="button"
          className="plain"
          aria-label={`Remove the cut ${name}`}
          onClick={remove}
        >
          remove
        </button>
      </td>
    </tr>
  );
}

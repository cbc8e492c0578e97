/** Words of many pictures: captions, links and alt texts of all items in one list, and how captions show per span. */
import { SegmentedControl, Switch, TextInput } from "@mantine/core";
import { NumberField } from "../../../ui/NumberField";
import { useWork } from "../../context";
import { partOf, withItem, withPart } from "../../draft";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import { ValueRow } from "../ValueRow";
import classes from "./Captions.module.css";
import { useGrid } from "./useGrid";

export function CaptionsStep() {
  const { handle, reading, originals, choosePart, error } = useWork();
  const { parts } = handle.draft.placement;
  const told = reading.findings.filter((f) => f.step === "words");
  return (
    <>
      <div className={`${ground.column} ${classes.list}`} style={{ flex: "1 1 62%" }}>
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Item</th>
              <th scope="col">Title</th>
              <th scope="col">Text</th>
              <th scope="col">Leads to</th>
              <th scope="col">Alt text</th>
              <th scope="col">Wide</th>
            </tr>
          </thead>
          <tbody>
            {parts.map((part, i) => {
              const item = part.item;
              const original = originals.find((o) => o.id === reading.items?.items[i]?.original);
              const wrong = error?.problem.errors?.find((e) => e.field.includes(`parts.${i}.item`))?.sentence;
              const field = (name: "title" | "text" | "href", label: string) => (
                <TextInput
                  size="xs"
                  aria-label={`${label} of item ${i + 1}`}
                  value={item?.[name] ?? ""}
                  error={wrong && name === "href" ? wrong.replace(/^[a-z_.0-9]+: /, "") : undefined}
                  onFocus={() => choosePart(i)}
                  onChange={(e) => {
                    const text = e.currentTarget.value;
                    handle.change(
                      (d) => withItem(d, i, { [name]: name === "href" && !text ? null : text }),
                      `item ${name} ${i}`,
                    );
                  }}
                />
              );
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: an item is its place
                <tr key={i} data-chosen={i === handle.part || undefined}>
                  <td>
                    <button type="button" className={classes.thumb} onClick={() => choosePart(i)}>
                      {original ? <img src={original.thumb} alt={original.name} loading="lazy" /> : `${i + 1}`}
                    </button>
                  </td>
                  <td>{field("title", "Title")}</td>
                  <td>{field("text", "Text")}</td>
                  <td>{field("href", "Link")}</td>
                  <td>
                    <TextInput
                      size="xs"
                      aria-label={`Alt text of item ${i + 1}`}
                      placeholder={original?.alt ?? "none yet"}
                      value={partOf(handle.draft, i).alt ?? ""}
                      onFocus={() => choosePart(i)}
                      onChange={(e) => {
                        const alt = e.currentTarget.value;
                        handle.change((d) => withPart(d, i, { alt: alt || null }), `item alt ${i}`);
                      }}
                    />
                  </td>
                  <td>
                    <Switch
                      size="xs"
                      aria-label={`Item ${i + 1} takes two columns`}
                      checked={item?.wide ?? false}
                      onChange={(e) => {
                        const wide = e.currentTarget.checked;
                        handle.change((d) => withItem(d, i, { wide }));
                      }}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className={ground.column} style={{ flex: "1 1 38%" }}>
        <SpanHead />
        <CaptionFields />
        <div className={ground.stack}>
          <Findings of={told} />
        </div>
      </div>
    </>
  );
}

function CaptionFields() {
  const { values, own, from, set, reset, problem } = useGrid();
  if (!values) return null;
  return (
    <>
      <ValueRow label="Captions" own={own("captions")} from={from("captions")} reset={() => reset(["captions"])}>
        <SegmentedControl
          size="xs"
          aria-label="What captions show"
          value={values.captions}
          onChange={(v) => set({ captions: v as typeof values.captions })}
          data={[
            { value: "none", label: "none" },
            { value: "title", label: "title" },
            { value: "all", label: "title and text" },
          ]}
        />
      </ValueRow>
      <ValueRow
        label="Sizes"
        own={own("title_px") || own("caption_px")}
        from={from("title_px") || from("caption_px")}
        reset={() => reset(["title_px", "caption_px"])}
        error={problem("title_px") ?? problem("caption_px")}
      >
        <NumberField
          label="Size of titles"
          before="titles"
          unit="px"
          value={values.title_px}
          set={(v) => set({ title_px: v }, "title size")}
        />
        <NumberField
          label="Size of texts"
          before="texts"
          unit="px"
          value={values.caption_px}
          set={(v) => set({ caption_px: v }, "text size")}
        />
      </ValueRow>
    </>
  );
}

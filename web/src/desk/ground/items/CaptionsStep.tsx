/**
 * Words of many pictures: captions, links and alt texts of all items in one list, and how captions
 * show per span.
 */
import { Switch, TextInput } from "@mantine/core";
import type { GridValues } from "../../../api/queries";
import { useWork } from "../../context";
import { partOf, withItem, withPart } from "../../draft";
import { FIELDS } from "../../kinds/fields";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { KindChoice, KindNumber } from "../KindRows";
import { KindValue } from "../KindValue";
import { SpanHead } from "../OwnValues";
import { useKindValues } from "../useKindValues";
import classes from "./Captions.module.css";

/** What every kind with captions says of them; where they are only where that can be chosen. */
type CaptionValues = Pick<GridValues, "captions" | "title_px" | "caption_px"> & {
  captions_lie?: "on" | "under";
};

export function CaptionsStep() {
  const { handle, reading, originals, choosePart, error } = useWork();
  const { parts, kind } = handle.draft.placement;
  const Captions = FIELDS[kind]?.Captions;
  const isWide = "arranged" in reading.values;
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
              {isWide && <th scope="col">Wide</th>}
            </tr>
          </thead>
          <tbody>
            {parts.map((part, i) => {
              const item = part.item;
              const original = originals.find((o) => o.id === reading.items?.items[i]?.original);
              const wrong = error?.problem.errors?.find((e) =>
                e.field.includes(`parts.${i}.item`),
              )?.sentence;
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
                      {original ? (
                        <img src={original.thumb} alt={original.name} loading="lazy" />
                      ) : (
                        `${i + 1}`
                      )}
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
                  {isWide && (
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
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className={ground.column} style={{ flex: "1 1 38%" }}>
        <SpanHead />
        <CaptionFields />
        {Captions && <Captions />}
        <div className={ground.stack}>
          <Findings of={told} />
        </div>
      </div>
    </>
  );
}

function CaptionFields() {
  const { values } = useKindValues<CaptionValues>();
  if (!values) return null;
  return (
    <>
      <KindValue fields={["captions"]} label="Captions">
        <KindChoice field="captions" label="What captions show" words={{ all: "title and text" }} />
      </KindValue>
      {values.captions_lie && (
        <KindValue fields={["captions_lie"]} label="They are">
          <KindChoice
            field="captions_lie"
            label="Where captions are"
            words={{ on: "on the picture", under: "under it" }}
          />
        </KindValue>
      )}
      <KindValue fields={["title_px", "caption_px"]} label="Sizes">
        <KindNumber field="title_px" label="Size of titles" before="titles" />
        <KindNumber field="caption_px" label="Size of texts" before="texts" />
      </KindValue>
    </>
  );
}

/** How a span puts pictures and their texts side by side, or one above the other. */
import { SegmentedControl } from "@mantine/core";
import type { ReactNode } from "react";
import type { BesideValues } from "../../../api/queries";
import { RankSelect } from "../../../ui/RankSelect";
import { useWork } from "../../context";
import { KindChoice, KindNumber } from "../../ground/KindRows";
import { KindValue } from "../../ground/KindValue";
import { useKindValues } from "../../ground/useKindValues";
import type { Fields } from "../fields";
import classes from "../Kinds.module.css";

const SHARES = [25, 50, 100];

/** `cells`: how high pictures are. */
function BesideFields({ cells }: { cells: ReactNode }) {
  const { values, set, notes } = useKindValues<BesideValues>();
  if (!values) return null;
  const stacked = values.share_percent >= 100;
  return (
    <>
      <KindValue fields={["share_percent"]} label="Picture">
        <KindNumber
          field="share_percent"
          label="The picture's share of the row"
          unit="% of the row"
        />
        <SegmentedControl
          size="xs"
          aria-label="Usual shares of the row"
          value={SHARES.includes(values.share_percent) ? String(values.share_percent) : ""}
          onChange={(v) => set({ share_percent: Number(v) })}
          data={SHARES.map((s) => ({ value: String(s), label: `${s} %` }))}
        />
      </KindValue>
      {stacked ? (
        <KindValue fields={["stacked"]} label="Stacked">
          <KindChoice
            field="stacked"
            label="Where the picture is stacked"
            words={{ above: "picture above", below: "text above" }}
          />
        </KindValue>
      ) : (
        <KindValue fields={["side", "align"]} label="Side">
          <KindChoice
            field="side"
            label="Side of the picture"
            words={{ start: "picture left", end: "right", alternate: "in turn" }}
          />
          <KindChoice
            field="align"
            label="Where the lower of both stands"
            words={{ start: "top", centre: "middle", end: "bottom" }}
          />
        </KindValue>
      )}
      {cells}
      <KindValue fields={["columns", "gutter_px"]} label="In a row">
        <KindNumber field="columns" label="How many in a row" unit="in a row" />
        <KindNumber field="gutter_px" before="gutter" />
      </KindValue>
      <KindValue fields={["between_px", "margin_px"]} label="Room">
        <KindNumber field="between_px" label="Room between picture and text" before="between" />
        <KindNumber field="margin_px" label="Outer margin" before="around" />
      </KindValue>
      <div className={classes.told}>
        {notes.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </div>
    </>
  );
}

/** Each picture's text may have a heading. */
function Captions() {
  const { handle, site } = useWork();
  return (
    <RankSelect
      label="Rank of titles"
      value={handle.draft.placement.title_level}
      set={(title_level) =>
        handle.change((d) => ({ ...d, placement: { ...d.placement, title_level } }))
      }
      site={site.plan.heading_level}
    />
  );
}

export default { Fields: BesideFields, height: "Picture height", Captions } satisfies Fields;

/** What lies on the picture beside words: a mark, or an inset that stands in for it. */
import { SegmentedControl } from "@mantine/core";
import { useRef } from "react";
import type { Look } from "../../../api/queries";
import { Uploads } from "../../../originals/Uploads";
import { useUploads } from "../../../originals/useUploads";
import { useWork } from "../../context";
import { NEW_PART, withRole, withTreatment } from "../../draft";
import { Told } from "../../Told";
import { lookOf } from "../../useBringing";
import { OriginalChooser } from "../aim/OriginalChooser";
import { Findings } from "../Findings";
import { KindNumber } from "../KindRows";
import { KindValue } from "../KindValue";
import { type Role, useRole } from "../useRole";
import { ValueRow } from "../ValueRow";
import { PlaceField } from "./PlaceField";
import { useWords } from "./useWords";
import classes from "./Words.module.css";
import { ColourInput } from "./WordsFields";

function ShowsRow({ of: role }: { of: Role }) {
  const { here, show } = useRole(role);
  if (!here) return null;
  return (
    <ValueRow
      label="Shows"
      own={here.own.includes("show")}
      from={here.origin.show}
      reset={() => show(undefined)}
    >
      <SegmentedControl
        size="xs"
        aria-label={`Whether the ${role} shows`}
        value={here.effective.show === "nothing" ? "nothing" : "picture"}
        onChange={(v) => show(v as "picture" | "nothing")}
        data={[
          { value: "picture", label: "shown" },
          { value: "nothing", label: "not here" },
        ]}
      />
    </ValueRow>
  );
}

export function MarkFields() {
  const { handle, span, site } = useWork();
  const { index, here, original, findings, remove } = useRole("mark");
  const { values, set } = useWords();
  const input = useRef<HTMLInputElement>(null);
  const uploads = useUploads(site.id);
  const give = (id: number, look: Look) =>
    handle.edit({ kind: "role", role: "mark", letter: span.letter, original: id }, { [id]: look });
  const bring = async (files: File[]) => {
    const [first] = uploads.bring(files);
    const o = await first?.original;
    if (o) give(o.id, lookOf(o));
  };
  const chooser = (
    <>
      <OriginalChooser
        label={index < 0 ? "Choose a mark…" : "Change…"}
        give={give}
        bring={() => input.current?.click()}
        chosen={here?.effective.original ?? null}
      />
      <input
        ref={input}
        type="file"
        hidden
        aria-label="Bring a mark"
        accept=".svg,image/svg+xml,image/png,image/webp"
        onChange={(e) => void bring([...(e.currentTarget.files ?? [])])}
      />
      <Uploads {...uploads} />
    </>
  );
  const shows = here?.effective.show !== "nothing";
  if (index < 0 || !values)
    return (
      <div className={`${classes.offer} ${classes.inColumn}`}>
        <p>
          A mark is a title graphic or a logo with transparency, as SVG or PNG. It lies on the
          picture in one of nine places and can be another cut in every span: one line, stacked, the
          symbol alone.
        </p>
        <div className={classes.row}>{chooser}</div>
      </div>
    );
  return (
    <>
      <ShowsRow of="mark" />
      <ValueRow
        label="Mark"
        spots={["mark"]}
        own={!!here?.own.includes("original")}
        from={here?.origin.original}
        reset={() =>
          handle.change((d) => withTreatment(d, index, span.letter, { original: undefined }))
        }
      >
        <span className={classes.name}>{original?.name ?? "none"}</span>
        {chooser}
        <button type="button" className="plain" onClick={remove}>
          remove
        </button>
      </ValueRow>
      {shows && (
        <>
          <KindValue fields={["mark_place"]} label="Place">
            <PlaceField
              label="Place of the mark"
              place={values.mark_place}
              set={(mark_place) => set({ mark_place })}
            />
          </KindValue>
          <KindValue fields={["mark_percent", "mark_most_px"]} label="Width">
            <KindNumber field="mark_percent" />
            <KindNumber field="mark_most_px" before="at most" />
          </KindValue>
          <MarkWidth index={index} />
        </>
      )}
      <div className={classes.findings}>
        <Findings of={findings} />
      </div>
    </>
  );
}

/**
 * How wide the mark is drawn in the chosen span, and down to which width its lettering can be read.
 */
function MarkWidth({ index }: { index: number }) {
  const { reading, span, choosePart, seek } = useWork();
  const mark = reading.words?.marks.find((m) => m.letter === span.letter);
  if (!mark) return null;
  const [narrowest, widest] = [Math.round(mark.narrowest_px), Math.round(mark.widest_px)];
  return (
    <Told>
      <p className={classes.note}>
        {narrowest === widest ? `${widest} px wide here` : `${narrowest} to ${widest} px wide here`}
        {mark.readable_from_px != null ? (
          `; its lettering can be read from ${Math.ceil(mark.readable_from_px)} px.`
        ) : (
          <>
            .{" "}
            <button
              type="button"
              className="plain"
              onClick={() => {
                choosePart(index);
                seek("draw", "aim", "mark");
              }}
            >
              Draw its lettering
            </button>{" "}
            and tick <i>lettering</i> to be told down to which width it can be read.
          </>
        )}
      </p>
    </Told>
  );
}

export function InsetFields() {
  const { handle, span, reading, seek } = useWork();
  const { index, here, findings, remove } = useRole("inset");
  const { values, set, detail } = useWords();
  const widest = reading.spans.at(-1)?.letter ?? span.letter;
  const picture = reading.parts[0]?.spans.find((s) => s.letter === span.letter);
  const dropped = picture?.effective.show === "colour";
  const stands = detail?.stand_ins ?? [];
  const keeps = here?.keeps ?? [];
  const cut = (name: string) => {
    const found = stands.find((s) => s.name === name);
    if (!found) return;
    handle.change((d) => {
      const at = d.placement.parts.findIndex((p) => p.role === "inset");
      // it stands in only where it is asked for
      const there =
        at >= 0
          ? d
          : withRole(d, "inset", { ...NEW_PART, treatments: { [widest]: { show: "nothing" } } });
      const part = at >= 0 ? at : there.placement.parts.length - 1;
      const shown = withTreatment(there, part, span.letter, {
        show: "picture",
        original: found.original,
        crop: found.crop,
        keeps: [found.name],
      });
      return withTreatment(shown, 0, span.letter, { show: "colour" });
    });
  };
  const choice = stands.map((s) => (
    <button
      key={`${s.original} ${s.name}`}
      type="button"
      className={classes.choice}
      aria-pressed={index >= 0 && here?.effective.show !== "nothing" && keeps.includes(s.name)}
      onClick={() => cut(s.name)}
    >
      {s.name}
    </button>
  ));
  if (index < 0 || !values)
    return (
      <div className={`${classes.offer} ${classes.inColumn}`}>
        <p>
          Where a picture is dropped, a small cut of one keep area can stand in for it, round or
          square. Choose one for span {span.letter}: the picture gives way to its background colour
          there.
        </p>
        <Told>
          <div className={classes.row} data-spot="inset">
            {choice.length ? (
              choice
            ) : (
              <>
                No picture here has a keep area yet.{" "}
                <button
                  type="button"
                  className="plain"
                  onClick={() => seek("draw", "aim", "inset")}
                >
                  Draw one on the map
                </button>
              </>
            )}
          </div>
        </Told>
      </div>
    );
  return (
    <>
      <ShowsRow of="inset" />
      <div className={classes.says}>
        <span className="soft">Cut</span>
        <span className={classes.row}>{choice}</span>
        <button type="button" className="plain" onClick={remove}>
          remove
        </button>
      </div>
      {here?.effective.show !== "nothing" && !dropped && (
        <p className={classes.note}>
          The picture itself shows in {span.letter}.{" "}
          <button
            type="button"
            className="plain"
            onClick={() =>
              handle.change((d) => withTreatment(d, 0, span.letter, { show: "colour" }))
            }
          >
            drop it here
          </button>
        </p>
      )}
      {here?.effective.show !== "nothing" && (
        <>
          <KindValue fields={["inset_place"]} label="Place">
            <PlaceField
              label="Place of the inset"
              place={values.inset_place}
              set={(inset_place) => set({ inset_place })}
            />
          </KindValue>
          <KindValue fields={["inset_px", "inset_round"]} label="Size">
            <KindNumber field="inset_px" />
            <SegmentedControl
              size="xs"
              aria-label="Shape of the inset"
              value={values.inset_round ? "round" : "square"}
              onChange={(v) => set({ inset_round: v === "round" })}
              data={["round", "square"]}
            />
          </KindValue>
          <KindValue fields={["inset_border_px", "inset_border"]} label="Border">
            <KindNumber field="inset_border_px" />
            <ColourInput
              label="Colour of the border"
              value={values.inset_border}
              set={(inset_border) => set({ inset_border }, "inset border colour")}
            />
          </KindValue>
        </>
      )}
      <div className={classes.findings}>
        <Findings of={findings} />
      </div>
    </>
  );
}

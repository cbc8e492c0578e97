/** All items of the chosen span cropped to one ratio at once, each around its own areas. */
import { Button } from "@mantine/core";
import { useState } from "react";
import { client, dataAs, ProblemError, type Schemas } from "../../../api/client";
import { UNCROPPED } from "../../../picture/crop";
import { plural } from "../../../ui/format";
import { useWork } from "../../context";
import { withTreatment } from "../../draft";
import field from "../Field.module.css";

type CropsOfAll = Schemas["CropsOfAll"];

export function CropAll() {
  const { site, placementId, handle, span, reading } = useWork();
  const [busy, setBusy] = useState<string>();
  const [told, setTold] = useState<string>();
  const ratios = Object.entries(reading.items?.crop_ratios ?? {});
  const one = reading.items?.one ?? "item";
  const crop = async (name: string, ratio: number) => {
    setBusy(name);
    setTold(undefined);
    try {
      const { placement, looks } = handle.draft;
      const found = await dataAs<CropsOfAll>(
        client.POST("/api/sites/{site_id}/crops", {
          params: { path: { site_id: site.id } },
          body: {
            placement,
            looks,
            placement_id: placementId,
            chosen: span.letter,
            ratio,
            part: 0,
          },
        }),
      );
      const crops = Object.entries(found.crops);
      handle.change((d) =>
        crops.reduce((e, [i, c]) => withTreatment(e, Number(i), span.letter, { crop: c }), d),
      );
      const kept = Object.values(found.why_not);
      if (kept.length)
        setTold(
          `${plural(kept.length, one)} kept as ${kept.length === 1 ? "it is" : "they are"}. ${kept[0]}`,
        );
    } catch (e) {
      setTold(e instanceof ProblemError ? e.message : "No answer. Try again.");
    }
    setBusy(undefined);
  };
  const none = () =>
    handle.change((d) =>
      d.placement.parts.reduce(
        (e, _, i) => withTreatment(e, i, span.letter, { crop: UNCROPPED }),
        d,
      ),
    );
  return (
    <div className={field.field}>
      <div className={field.label}>Crop</div>
      <div className={field.control}>
        {ratios.map(([name, ratio]) => (
          <Button
            key={name}
            size="compact-xs"
            variant="default"
            loading={busy === name}
            disabled={busy !== undefined}
            onClick={() => crop(name, ratio)}
          >
            {name}
          </Button>
        ))}
        <Button size="compact-xs" variant="default" disabled={busy !== undefined} onClick={none}>
          none
        </Button>
        {told && (
          <div className={field.error} role="alert">
            {told}
          </div>
        )}
      </div>
    </div>
  );
}

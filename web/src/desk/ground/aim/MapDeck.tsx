/**
 * The map of the chosen span's original, or what stands in its place; pictures can be dropped on
 * it.
 */
import { Modal } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useDisclosure } from "@mantine/hooks";
import { type RefObject, useEffect, useState } from "react";
import { Uploads } from "../../../originals/Uploads";
import { GuideLines } from "../../../picture/GuideLines";
import { Seen } from "../../../picture/Outlines";
import { type MapProps, PictureMap } from "../../../picture/PictureMap";
import { SuggestionBar, useSuggestion } from "../../../picture/Suggest";
import { useDesk, useWork } from "../../context";
import { linesOf, useGuides } from "../../guides";
import { PartStrip } from "../../PartStrip";
import classes from "./Aim.module.css";
import { LargeMap } from "./LargeMap";
import { MapCaption } from "./MapCaption";
import { NoMap } from "./NoMap";
import { useAimed } from "./useAimed";
import { type InHand, useLimits } from "./useCropping";
import { windowAt } from "./windowAt";

interface Props {
  openFiles: RefObject<(() => void) | null>;
  inHand: InHand;
}

export function MapDeck({ openFiles, inHand: { cropping, change } }: Props) {
  const { span, reading, handle, bringing, spot, comeBack, leave } = useWork();
  const { aimed, set, setFocal, setAreas } = useAimed();
  const [drawing, setDrawing] = useState<"keep" | "quiet">();
  const [large, { open: openLarge, close: closeLarge }] = useDisclosure();
  const asked = spot?.at === "draw" && spot.step === "aim" ? spot : undefined;
  // a sentence asked for an area
  useEffect(() => {
    if (asked) setDrawing("keep");
  }, [asked]);
  const drawn = () => {
    setDrawing(undefined);
    if (asked) comeBack();
  };
  const suggestion = useSuggestion(aimed?.original.id);
  const { ratio, least, density } = useLimits(cropping, aimed?.original);
  const overall = reading.safe.find((s) => s.original === aimed?.original.id);
  const map: MapProps | undefined = aimed && {
    ...aimed,
    setAreas,
    spans: reading.spans.filter((s) => s.effective.original === aimed.original.id),
    chosen: span,
    seen: <SeenHere />,
    moveFocal: setFocal,
    settle: handle.settle,
    crop: span.effective.crop,
    cropping: cropping.on
      ? {
          ratio,
          least,
          change: (crop, group) => set({ crop }, `${group} ${span.letter}`),
          stopped: (stopped) => change({ stopped }),
        }
      : undefined,
    overall: overall && overall.spans.length > 1 ? overall.safe : undefined,
    suggestion: suggestion.found,
    matter: span.keeps,
  };
  const shows = span.effective.show === "picture";
  return (
    <div className={classes.map}>
      <PartStrip />
      <Dropzone
        onDrop={(files) => bringing.bring(span.letter, files)}
        openRef={openFiles}
        activateOnClick={false}
        activateOnKeyboard={false}
        multiple={false}
        unstyled
        className={classes.drop}
        inputProps={{ "aria-label": `Bring an original for span ${span.letter}` }}
      >
        {shows && map ? (
          <PictureMap {...map} drawing={drawing} drawn={drawn} />
        ) : (
          <NoMap openFiles={() => openFiles.current?.()} />
        )}
      </Dropzone>
      {suggestion.failed && (
        <div className={classes.upload} data-state="refused" role="alert">
          {suggestion.failed}
          <button type="button" className="plain" onClick={suggestion.dismiss}>
            dismiss
          </button>
        </div>
      )}
      <Uploads {...bringing.uploads} />
      {aimed && suggestion.found && (
        <SuggestionBar
          suggestion={suggestion.found}
          look={aimed.look}
          setFocal={setFocal}
          setAreas={setAreas}
          dismiss={suggestion.dismiss}
        />
      )}
      {aimed && shows && !suggestion.found && (
        <MapCaption
          aimed={aimed}
          setAreas={setAreas}
          suggest={suggestion.ask}
          drawing={drawing === "keep"}
          draw={(on) => {
            setDrawing(on ? "keep" : undefined);
            if (!on) leave();
          }}
          back={
            asked && asked.from.step !== "aim" ? { to: asked.from.step, come: drawn } : undefined
          }
          openLarge={openLarge}
          stops={
            cropping.on && cropping.stopped
              ? `stops here: a smaller crop is soft at ${density}x`
              : undefined
          }
        />
      )}
      {map && (
        <Modal
          opened={large}
          onClose={closeLarge}
          fullScreen
          title={`${map.original.name}, areas and focal point`}
        >
          <LargeMap map={map} />
        </Modal>
      )}
    </div>
  );
}

/** What the chosen span shows at the cursor. */
function SeenHere() {
  const { span, cursor } = useDesk();
  const rect = windowAt(span, cursor);
  const at = linesOf(useGuides());
  return (
    rect && (
      <>
        <Seen rect={rect} />
        <GuideLines rect={rect} at={at} />
      </>
    )
  );
}

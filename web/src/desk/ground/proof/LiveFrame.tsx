import { TextInput } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { useEffect, useMemo, useRef, useState } from "react";
import { usePredictions } from "../../../api/deliveries";
import type { Prediction } from "../../../api/queries";
import { stepAlong } from "../../../ui/arrows";
import { DRAG } from "../../../ui/drag";
import { bytes, typed } from "../../../ui/format";
import { useDesk } from "../../context";
import { heightAt } from "../../scale";
import classes from "./Proof.module.css";
import { type Formats, pageOf, readFrame, said, short, type Taken } from "./taken";

/**
 * The delivered page at a width that can be dragged and typed, loaded anew for each so that no
 * cache answers.
 */
export function LiveFrame({
  id,
  part,
  service,
  supported,
  onWhy,
}: {
  id: number;
  /** The picture that is looked at, by its place on the page. */
  part: number;
  /** Whether an image service gives the pictures out. */
  service: boolean;
  supported: Formats;
  onWhy: (p: Prediction) => void;
}) {
  const { cursor, setCursor, reading, scale } = useDesk();
  const { ref, width: roomW, height: roomH } = useElementSize();
  const height = heightAt(reading, cursor);
  const own = window.devicePixelRatio;
  // the page is as large as there is room for; while its edge is dragged its scale stays
  const [heldZoom, setHeldZoom] = useState<number>();
  const zoom = heldZoom ?? Math.min(1, (roomW - 14) / cursor);
  const frame = useRef<HTMLIFrameElement>(null);
  const [taken, setTaken] = useState<Taken>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: each width and each part is tried anew
  const attempt = useMemo(
    () => `${cursor}-${Math.random().toString(36).slice(2)}`,
    [cursor, part, service],
  );
  const asked = useMemo(
    () => ({
      cases: [{ width: cursor, height, density: own, formats: supported }],
      densities: [own],
      formats: supported,
      part,
      service,
    }),
    [cursor, height, supported, part, service],
  );
  const prediction = usePredictions(id, asked).data?.find((p) => p.case.width === cursor);
  const [loaded, setLoaded] = useState<string>();
  const { element, background } = prediction ?? {};
  useEffect(() => {
    setTaken(undefined);
    if (loaded !== attempt || element === undefined || background === undefined || !frame.current)
      return;
    let isOld = false;
    readFrame(frame.current, { element, background }).then((t) => isOld || setTaken(t));
    return () => {
      isOld = true;
    };
  }, [loaded, attempt, element, background]);
  const start = useRef(cursor);
  const bind = useDrag(({ movement: [mx], first, last }) => {
    if (first) {
      start.current = cursor;
      setHeldZoom(zoom);
    }
    setCursor(start.current + mx / zoom);
    if (last) setHeldZoom(undefined);
  }, DRAG);
  return (
    <div className={classes.live}>
      <div className={classes.liveHead}>
        <strong>This browser, the delivered page</strong>
        <span className="num">
          {cursor} × {height} at {own}x
        </span>
      </div>
      <div className={classes.liveBody}>
        <div className={classes.room} ref={ref}>
          <div
            className={classes.page}
            style={{ width: cursor * zoom, height: Math.min(roomH, height * zoom) }}
          >
            <iframe
              ref={frame}
              key={attempt}
              title="The delivered page"
              src={`/api/deliveries/${id}/tree/${attempt}/${pageOf(service)}`}
              onLoad={() => setLoaded(attempt)}
              style={{ width: cursor, height, transform: `scale(${zoom})` }}
            />
            <div
              className={classes.edge}
              role="slider"
              tabIndex={0}
              aria-label="Width of the page"
              aria-valuemin={scale.narrowest}
              aria-valuemax={scale.widest}
              aria-valuenow={cursor}
              onKeyDown={(e) => {
                const by = stepAlong(e);
                if (by) setCursor(cursor + by);
              }}
              {...bind()}
            />
          </div>
        </div>
        <Took taken={taken} prediction={prediction} onWhy={onWhy} />
      </div>
      <TypedWidth width={cursor} set={setCursor} />
    </div>
  );
}

interface TookProps {
  taken: Taken | undefined;
  prediction: Prediction | undefined;
  onWhy: (p: Prediction) => void;
}

/** What it took, and whether that is what was predicted. */
function Took({ taken, prediction, onWhy }: TookProps) {
  const same = taken && prediction && taken.url === prediction.url;
  return (
    <div className={classes.took} aria-live="polite">
      <span className="soft">It took</span>
      <code>{taken ? said(taken) : "loading…"}</code>
      {taken?.url && (
        <span>
          {taken.width ? `${taken.width} px` : ""}
          {prediction?.file?.size_bytes != null && same
            ? `, ${bytes(prediction.file.size_bytes)}`
            : ""}
        </span>
      )}
      {taken && prediction && (
        <strong className={same ? classes.same : classes.other}>
          {same ? "as predicted" : `predicted ${short(prediction.url)}`}
        </strong>
      )}
      {prediction && (
        <button type="button" className="plain" onClick={() => onWhy(prediction)}>
          why
        </button>
      )}
    </div>
  );
}

function TypedWidth({ width, set }: { width: number; set: (width: number) => void }) {
  const [text, setText] = useState<string>();
  return (
    <div className={classes.liveFoot}>
      <span>Drag the edge, or type a width.</span>
      <TextInput
        aria-label="Width of the page"
        value={text ?? String(width)}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => {
          const w = typed(text ?? "");
          if (w !== undefined) set(w);
          setText(undefined);
        }}
        onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
        styles={{ input: { width: 64 } }}
      />
      <span className="soft">Loaded anew for each try.</span>
    </div>
  );
}

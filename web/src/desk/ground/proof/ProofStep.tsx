/** Proof: what this very browser does with the delivered page, beside what was predicted, and why. */
import { Button, Select, TextInput } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { useCallback, useMemo, useRef, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { type Prediction, useDelivered, usePredictions } from "../../../api/queries";
import { DRAG } from "../../../ui/drag";
import { bytes, typed } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useDesk } from "../../context";
import { heightAt } from "../../scale";
import ground from "../Ground.module.css";
import classes from "./Proof.module.css";
import { readFrame, type Taken, takenBy, useBrowserFormats } from "./taken";

type Formats = NonNullable<Schemas["Case"]["formats"]>;

export function ProofStep() {
  const state = useDesk();
  const { placementId, site, delivery } = state;
  const delivered = useDelivered(placementId, true);
  if (delivered.isPending) return <div className={ground.column}>Looking for an export…</div>;
  if (!delivered.data)
    return (
      <div className={ground.column}>
        <p>
          There is nothing to prove yet:{" "}
          <Link to={`/sites/${site.id}/placements/${placementId}/files`}>export the files</Link> first.
        </p>
      </div>
    );
  return <Proof id={delivered.data.id} stale={!delivery?.is_current} />;
}

function Proof({ id, stale }: { id: number; stale: boolean }) {
  const state = useDesk();
  const [formats, setFormats] = useState<Formats>("all");
  const own = window.devicePixelRatio;
  const densities = state.site.plan.densities ?? [1, 2];
  const rows = usePredictions(id, { densities, formats });
  const [why, setWhy] = useState<Prediction>();
  const [results, setResults] = useState<Record<string, Taken>>({});
  const [trying, setTrying] = useState(0);
  const supported = useBrowserFormats();
  // densities beyond the screen's own can only be predicted
  const triable = (p: Prediction) => p.case.density === own && formats === supported;
  const key = (p: Prediction) => `${id} ${p.case.width} ${p.case.density} ${formats}`;
  const table = rows.data ?? [];
  const tryAll = async () => {
    const todo = table.filter(triable);
    setResults({});
    for (const [i, p] of todo.entries()) {
      setTrying(i + 1);
      const taken = await takenBy(id, p.case.width, p.case.height);
      setResults((r) => ({ ...r, [key(p)]: taken }));
    }
    setTrying(0);
  };
  const tried = table.filter((p) => results[key(p)]);
  const agree = tried.filter((p) => results[key(p)]?.url === p.url).length;
  const shown = why ?? table[0];
  return (
    <>
      <LiveFrame id={id} supported={supported} onWhy={setWhy} />
      <div className={ground.column} style={{ flex: "1 1 44%" }}>
        <div className={classes.tools}>
          <Select
            aria-label="Formats the browser knows"
            value={formats}
            onChange={(v) => setFormats((v ?? "all") as Formats)}
            allowDeselect={false}
            data={[
              { value: "all", label: "knows AVIF, WebP, JPEG" },
              { value: "webp", label: "knows WebP, JPEG" },
              { value: "jpeg", label: "knows JPEG only" },
            ]}
          />
          <Button variant="default" onClick={tryAll} loading={trying > 0} disabled={!table.some(triable)}>
            Try all at {own}x in this browser
          </Button>
          <span className="soft">
            {trying > 0
              ? `${trying} of ${table.filter(triable).length}`
              : tried.length > 0
                ? `${agree} of ${tried.length} agree`
                : table.some(triable)
                  ? ""
                  : "Only predicted: this browser differs"}
          </span>
        </div>
        {stale && (
          <p className={classes.stale}>The placement has changed since this export; this is the exported page.</p>
        )}
        <table className={ground.table}>
          <thead>
            <tr>
              <th> </th>
              <th className={ground.right}>Width</th>
              <th>Density</th>
              <th>Predicted</th>
              <th className={ground.right}>px</th>
              <th className={ground.right}>Bytes</th>
              <th>This browser took</th>
            </tr>
          </thead>
          <tbody>
            {table.map((p) => {
              const taken = results[key(p)];
              return (
                <tr
                  key={key(p)}
                  data-press
                  aria-selected={shown === p}
                  tabIndex={0}
                  onClick={() => setWhy(p)}
                  onKeyDown={(e) => e.key === "Enter" && setWhy(p)}
                >
                  <td>
                    <Letter of={p.span} small />
                  </td>
                  <td className={ground.right}>{p.case.width}</td>
                  <td>{p.case.density}x</td>
                  <td className="num">{short(p.url)}</td>
                  <td className={ground.right}>{p.file?.width_px}</td>
                  <td className={ground.right}>{p.file?.size_bytes != null && bytes(p.file.size_bytes)}</td>
                  <td>
                    {taken ? (
                      <Agreement taken={taken} predicted={p} />
                    ) : (
                      <span className="soft">{triable(p) ? "not tried" : "–"}</span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <div className={ground.column} style={{ flex: "0 0 270px", paddingLeft: 0 }}>
        {shown && <Why of={shown} />}
      </div>
    </>
  );
}

const short = (url: string | null | undefined) => url?.replace(/^images\//, "") ?? "nothing";

function Agreement({ taken, predicted }: { taken: Taken; predicted: Prediction }) {
  const same = taken.url === predicted.url;
  return (
    <strong className={same ? classes.same : classes.other}>
      {same ? "the same" : (short(taken.url) ?? taken.failure)}
    </strong>
  );
}

function Why({ of }: { of: Prediction }) {
  return (
    <div className={ground.card}>
      <h3>
        Why at {of.case.width}, {of.case.density}x
      </h3>
      <ol className={classes.why}>
        {of.trace.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps are in order
          <li key={i} data-taken={s.taken || undefined}>
            <code>{s.element}</code> {s.why}
          </li>
        ))}
      </ol>
      <code className={classes.result}>→ {short(of.url)}</code>
    </div>
  );
}

/** The delivered page at a width that can be dragged and typed, loaded anew for each so that no cache answers. */
function LiveFrame({ id, supported, onWhy }: { id: number; supported: Formats; onWhy: (p: Prediction) => void }) {
  const state = useDesk();
  const { cursor, setCursor, reading, scale } = state;
  const { ref, width: roomW, height: roomH } = useElementSize();
  const height = heightAt(reading, cursor);
  const own = window.devicePixelRatio;
  // the page is as large as there is room for; while its edge is dragged its scale stays
  const [heldZoom, setHeldZoom] = useState<number>();
  const zoom = heldZoom ?? Math.min(1, (roomW - 14) / cursor);
  const frame = useRef<HTMLIFrameElement>(null);
  const [taken, setTaken] = useState<Taken>();
  const attempt = useMemo(() => `${cursor}-${Math.random().toString(36).slice(2)}`, [cursor]);
  const asked = useMemo(
    () => ({
      cases: [{ width: cursor, height, density: own, formats: supported }],
      densities: [own],
      formats: supported,
    }),
    [cursor, height, supported],
  );
  const prediction = usePredictions(id, asked as never).data?.find((p) => p.case.width === cursor);
  const look = useCallback(async () => {
    setTaken(undefined);
    if (frame.current) setTaken(await readFrame(frame.current));
  }, []);
  const [text, setText] = useState<string>();
  const start = useRef(cursor);
  const bind = useDrag(({ movement: [mx], first, last }) => {
    if (first) {
      start.current = cursor;
      setHeldZoom(zoom);
    }
    setCursor(start.current + mx / zoom);
    if (last) setHeldZoom(undefined);
  }, DRAG);
  const same = taken && prediction && taken.url === prediction.url;
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
          <div className={classes.page} style={{ width: cursor * zoom, height: Math.min(roomH, height * zoom) }}>
            <iframe
              ref={frame}
              key={attempt}
              title="The delivered page"
              src={`/api/deliveries/${id}/tree/${attempt}/page.html`}
              onLoad={look}
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
                const by = e.shiftKey ? 10 : 1;
                if (e.key === "ArrowLeft") setCursor(cursor - by);
                if (e.key === "ArrowRight") setCursor(cursor + by);
              }}
              {...bind()}
            />
          </div>
        </div>
        <div className={classes.took} aria-live="polite">
          <span className="soft">It took</span>
          <code>{taken ? (short(taken.url) ?? taken.failure) : "loading…"}</code>
          {taken?.url && (
            <span>
              {taken.width ? `${taken.width} px` : ""}
              {prediction?.file?.size_bytes != null && same ? `, ${bytes(prediction.file.size_bytes)}` : ""}
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
      </div>
      <div className={classes.liveFoot}>
        <span>Drag the edge, or type a width.</span>
        <TextInput
          aria-label="Width of the page"
          value={text ?? String(cursor)}
          onChange={(e) => setText(e.currentTarget.value)}
          onBlur={() => {
            const w = typed(text ?? "");
            if (w !== undefined) setCursor(w);
            setText(undefined);
          }}
          onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
          styles={{ input: { width: 64 } }}
        />
        <span className="soft">Loaded anew for each try.</span>
      </div>
    </div>
  );
}

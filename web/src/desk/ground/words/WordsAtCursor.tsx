/** What holds for the words at this one width. */
import { useDesk } from "../../context";
import { runAt, spanAt, valueAt } from "../../scale";
import ground from "../Ground.module.css";
import classes from "./Words.module.css";

const ratio = (v: number | undefined) => (v === undefined ? "–" : `${v.toFixed(1)}:1`);

export function WordsAtCursor() {
  const { reading, cursor } = useDesk();
  const { words } = reading;
  const span = spanAt(reading.spans, cursor);
  const here = words?.spans.find((s) => s.letter === span?.letter);
  if (!words || !here || !span) return null;
  const lines = (t: (typeof here.texts)[number]) =>
    t.lines.find((l) => l.first <= cursor && cursor <= l.last)?.lines;
  const detail = words.detail?.letter === here.letter ? words.detail : undefined;
  return (
    <>
      <div className={classes.facts}>
        <div className={ground.facts}>
          <h3>
            At {cursor} px, span {here.letter}
          </h3>
          {here.texts.length === 0 && <p>No words show here.</p>}
          <dl>
            {here.texts.map((t) => {
              const band = words.bands.find((b) => b.id === `readable.${t.id}`);
              const found = band && valueAt(band.curve, cursor);
              const faint = band && runAt(band, cursor)?.verdict === "faint";
              const n = lines(t);
              return (
                <div key={t.id} data-faint={faint || undefined}>
                  <dt>{t.name.toLowerCase()}</dt>
                  <dd>
                    <b>{ratio(found)}</b> · needs {t.needed}
                    {n !== undefined &&
                      t.kind !== "button" &&
                      ` · ${n} ${n === 1 ? "line" : "lines"}`}
                    {t.broken && " · a word is broken"}
                  </dd>
                </div>
              );
            })}
          </dl>
        </div>
        {here.texts.length > 0 && (
          <div className={ground.facts}>
            <h3>
              {span.effective.show === "picture" ? "Before it has loaded" : "On its colour"}{" "}
              <i
                className={classes.chip}
                style={{ background: span.effective.background }}
                title={span.effective.background}
              />
            </h3>
            <dl>
              {here.texts
                .filter((t) => t.kind !== "button")
                .map((t) => (
                  <div key={t.id} data-faint={t.before_loading < t.needed || undefined}>
                    <dt>{t.name.toLowerCase()}</dt>
                    <dd>
                      <b>{ratio(t.before_loading)}</b>
                    </dd>
                  </div>
                ))}
            </dl>
          </div>
        )}
      </div>
      {detail?.flattest != null && (
        <p className={classes.note}>
          Flattest here with areas and words: <b>{detail.flattest.toFixed(2)} : 1</b>
        </p>
      )}
      {detail?.scrim_why && <p className={classes.note}>{detail.scrim_why}</p>}
      {words.unset.length > 0 && (
        <p className={classes.note}>
          The typeface has no sign for {words.unset.slice(0, 6).join(" ")}
          {words.unset.length > 6 && " …"}: browsers take another font there, and widths are a
          guess.
        </p>
      )}
      {!words.measured && here.texts.length > 0 && (
        <p className={classes.note}>
          The picture could not be read just now, so contrast is not known.
        </p>
      )}
    </>
  );
}

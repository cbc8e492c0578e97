import type { WholeReading } from "../../../api/queries";
import { bytes, FORMATS, percent, size } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useWork } from "../../context";
import ground from "../Ground.module.css";
import classes from "./Files.module.css";

export type Row = WholeReading["files"][number];
export type Format = Row["formats"][number]["format"];

/**
 * One row per px size: for which spans, as what it is offered, what it is called and what it
 * weighs.
 */
export function FileTable({ compare }: { compare: (row: Row, format: Format) => void }) {
  const { reading, choose, span, delivery } = useWork();
  const facts = new Map(delivery?.files.map((f) => [f.key, f]));
  const { files } = reading;
  const formats = [...new Set(files.flatMap((f) => f.formats.map((x) => x.format)))];
  const heaviest = Math.max(1, ...files.flatMap((f) => f.formats.map((x) => x.size_bytes ?? 0)));
  const hasLadder = reading.ladders.length > 0;
  const takenBy = (row: Row) =>
    reading.ladders
      .find((l) => l.part === row.part && l.spans.join() === row.spans.join())
      ?.rungs.find((r) => r.width_px === row.width_px)?.share;
  return (
    <table className={ground.table}>
      <thead>
        <tr>
          <th>Span</th>
          <th>Offered as</th>
          {hasLadder && (
            <th className={classes.taken} title="Share of the audience inside these spans">
              Taken by
            </th>
          )}
          <th>Size in px</th>
          <th>Name</th>
          {formats.map((f) => (
            <th key={f} className={ground.right}>
              {FORMATS[f]}
            </th>
          ))}
          <th style={{ width: "14%" }} title="Lightest against heaviest">
            Bytes
          </th>
        </tr>
      </thead>
      <tbody>
        {files.map((f, i) => {
          const first = files[i - 1]?.spans.join() !== f.spans.join();
          const known = f.formats.map((x) => x.size_bytes).filter((b) => b != null);
          const share = takenBy(f);
          return (
            <tr
              key={f.stem}
              aria-selected={f.spans.includes(span.letter)}
              data-press
              onClick={() => choose(f.spans[0] as string)}
            >
              <td>
                <span className={classes.letters}>
                  {first && f.spans.map((s) => <Letter key={s} of={s} />)}
                </span>
              </td>
              <td className="num">{f.descriptor}</td>
              {hasLadder && (
                <td className={classes.taken}>
                  {share === undefined ? "" : share ? percent(share) : "hardly any"}
                </td>
              )}
              <td className="num">
                {size(f.width_px, f.height_px)}
                {f.soft && (
                  <span
                    className={classes.soft}
                    title={`${f.needed_px} px are needed; sharp up to ${f.sharp_to_density}x`}
                  >
                    soft, {f.share.toFixed(2)}×
                  </span>
                )}
              </td>
              <td className="num">{f.stem}</td>
              {formats.map((format) => {
                const one = f.formats.find((x) => x.format === format);
                const made = facts.get(one?.key ?? "");
                return (
                  <td key={format} className={ground.right}>
                    {!one ? (
                      ""
                    ) : one.size_bytes == null ? (
                      <span className="soft">–</span>
                    ) : (
                      <button
                        type="button"
                        className={
                          one.left_out ? `${classes.pressed} ${classes.out}` : classes.pressed
                        }
                        disabled={!made}
                        title={
                          one.quick
                            ? "As a quick look made it; the export takes longer and fewer bytes"
                            : one.left_out
                              ? "No smaller than an older format: it is not handed over"
                              : made?.ssim
                                ? `SSIM ${made.ssim.toFixed(4)} at quality ${made.quality}: press to compare`
                                : undefined
                        }
                        onClick={(e) => {
                          e.stopPropagation();
                          compare(f, format);
                        }}
                      >
                        {one.quick ? "≈ " : ""}
                        {bytes(one.size_bytes)}
                      </button>
                    )}
                  </td>
                );
              })}
              <td>
                {known.length > 0 && (
                  <div className={classes.bar}>
                    <i style={{ width: `${(Math.max(...known) / heaviest) * 100}%` }} />
                    <b style={{ width: `${(Math.min(...known) / heaviest) * 100}%` }} />
                  </div>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

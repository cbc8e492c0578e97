/** What a host is given that takes no markup: rules for an element of its, or a sheet to type from. */
import { useEffect, useState } from "react";
import { useWork } from "../../context";
import ground from "../Ground.module.css";
import { Block } from "./Block";
import classes from "./Host.module.css";
import { Target } from "./Target";
import { type HostReading, useHost } from "./useHost";

export function ForHost() {
  const { site } = useWork();
  const { answer: reading, error } = useHost();
  if (site.plan.hand_over.host.takes === "rules")
    return <Rules reading={reading} error={error?.message} />;
  if (reading) return <Sheet reading={reading} />;
  return (
    <div className={ground.column} style={{ flex: "1 1 82%" }} aria-busy={!error}>
      <Waits error={error?.message} />
    </div>
  );
}

function Waits({ error }: { error: string | undefined }) {
  return error ? <p role="alert">{error}</p> : <p className="soft">Working it out…</p>;
}

/** The selector stays, whatever is wrong with it. */
function Rules({
  reading,
  error,
}: {
  reading: HostReading | undefined;
  error: string | undefined;
}) {
  return (
    <>
      <div className={ground.column} style={{ flex: "1 1 50%" }} aria-busy={!reading && !error}>
        {!reading ? (
          <Waits error={error} />
        ) : reading.css_text ? (
          <Block title="host.css" lines={reading.css} text={reading.css_text} />
        ) : (
          <p role="status">{reading.why_not}</p>
        )}
      </div>
      <div className={`${ground.column} ${classes.beside}`}>
        <Target />
        {reading && <Lacks reading={reading} />}
      </div>
    </>
  );
}

function Sheet({ reading }: { reading: HostReading }) {
  const page = usePage(reading.page);
  return (
    <>
      <div className={ground.column} style={{ flex: "1 1 56%" }}>
        <div className={classes.head}>
          <strong>To type from</strong>
          <a href={page} target="_blank" rel="noreferrer">
            On a page of its own, to print
          </a>
        </div>
        {reading.tables.map((table) => (
          <table key={table.picture} className={classes.sheet}>
            {table.picture && <caption>{table.picture}</caption>}
            <thead>
              <tr>
                <td />
                {table.views.map((view) => (
                  <th key={view} scope="col">
                    {view}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.lines.map((line) => (
                <tr key={line.label}>
                  <th scope="row">{line.label}</th>
                  {line.cells.map((cell, i) => (
                    <td key={table.views[i]}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        ))}
      </div>
      <div className={`${ground.column} ${classes.beside}`}>
        <Lacks reading={reading} />
      </div>
    </>
  );
}

function Lacks({ reading }: { reading: HostReading }) {
  if (reading.lacks.length === 0) return null;
  return (
    <section className={classes.lacks} aria-label="What the host cannot do">
      <strong>What the host cannot do</strong>
      <ul>
        {reading.lacks.map((lack) => (
          <li key={lack.sentence}>
            {lack.sentence} <span className="soft">{lack.where}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** An address of a text as a page. */
function usePage(text: string): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    const made = URL.createObjectURL(new Blob([text], { type: "text/html;charset=utf-8" }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [text]);
  return url;
}

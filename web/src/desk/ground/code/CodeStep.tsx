/** Code: the markup and the CSS that are handed over; every line bears the letter of its span. */
import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { useWork } from "../../context";
import { Told } from "../../Told";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { AltText } from "./AltText";
import { Block } from "./Block";
import classes from "./Code.module.css";
import { Copy } from "./Copy";
import { ForHost } from "./ForHost";
import { Meanwhile } from "./Meanwhile";
import { type Output, useWritten } from "./useWritten";
import { Written } from "./Written";

const OUTPUTS: { value: Output | "host"; label: string }[] = [
  { value: "html", label: "HTML" },
  { value: "jsx", label: "JSX" },
  { value: "django", label: "Django" },
  { value: "json", label: "JSON" },
];

export function CodeStep() {
  const { reading, site } = useWork();
  const { host, outputs } = site.plan.hand_over;
  const has = host.takes !== "markup";
  const [shown, setOutput] = useState<Output | "host">(has ? "host" : (outputs[0] ?? "html"));
  // a host that takes markup after all has nothing of its own
  const output = shown === "host" ? "html" : shown;
  const forHost = has && shown === "host";
  const { code, findings } = reading;
  const written = useWritten(output);
  const html = [
    ...(code.head_text ? [{ name: "head.html", lines: code.head, text: code.head_text }] : []),
    { name: "snippet.html", lines: code.markup, text: code.markup_text },
    { name: "picture.css", lines: code.css, text: code.css_text },
  ];
  const files = output === "html" ? html : written.answer;
  // what goes into the head of a page stands above the rest of its markup
  const [first, ...others] = files?.toReversed() ?? [];
  const columns =
    others.length > 0 && first ? [others.toReversed(), [first]] : first ? [[first]] : [];
  return (
    <>
      {forHost ? (
        <ForHost />
      ) : files ? (
        columns.map((column, i) => (
          <div
            key={column.at(-1)?.name}
            className={`${ground.column} ${classes.column}`}
            style={{ flex: `1 1 ${i ? 32 : 50}%`, ...(i ? { paddingLeft: 0 } : {}) }}
          >
            {column.map((f) => (
              <Told key={f.name}>
                <Block title={f.name.split("/").pop() ?? f.name} lines={f.lines} text={f.text} />
              </Told>
            ))}
          </div>
        ))
      ) : (
        <div className={ground.column} style={{ flex: "1 1 82%" }} aria-busy={!written.error}>
          {written.error ? (
            <p role="alert">{written.error.message}</p>
          ) : (
            <p className="soft">Writing…</p>
          )}
        </div>
      )}
      {!forHost && files?.length === 0 && (
        <div className={ground.column} style={{ flex: "1 1 82%" }}>
          Nothing to hand over as long as there is no picture.
        </div>
      )}
      <div className={ground.column} style={{ flex: "0 0 260px", paddingLeft: 0 }}>
        <div className={ground.stack}>
          <div className={classes.outputs}>
            <SegmentedControl
              size="xs"
              aria-label="Kind of code"
              value={forHost ? "host" : output}
              onChange={(v) => setOutput(v as Output | "host")}
              data={has ? [{ value: "host", label: "Host" }, ...OUTPUTS] : OUTPUTS}
            />
            {!forHost && (
              <Copy text={files?.map((f) => f.text).join("\n") ?? ""} label="Copy all" />
            )}
            {code.without_address.length > 0 && (
              <p role="status" className={classes.why} title={code.without_address.join("\n")}>
                {code.without_address.length} of these files have no address of their host yet:{" "}
                {code.without_address.slice(0, 3).join(", ")}
                {code.without_address.length > 3 && " …"}. Paste it in{" "}
                <Link to={`/sites/${site.id}/settings`}>Site</Link>.
              </p>
            )}
          </div>
          {!forHost && code.scripts.map((script) => <Script key={script.name} {...script} />)}
          {!forHost && (
            <>
              <Told>
                <Written />
              </Told>
              <Told>
                <Meanwhile />
              </Told>
            </>
          )}
          <AltText />
          <Told>
            <Findings of={findings.filter((f) => f.step === "code")} />
          </Told>
        </div>
      </div>
    </>
  );
}

/** The script that goes with the markup: the same for every placement that needs it. */
function Script({ name, what, tag, text }: Schemas["Script"]) {
  return (
    <figure className={`${ground.card} ${classes.script}`}>
      <figcaption>
        <span>
          <code>{name}</code> {(text.length / 1000).toFixed(1)} kB
        </span>
        <Copy text={text} />
      </figcaption>
      {what} Once in the page: <code>{tag}</code>
    </figure>
  );
}

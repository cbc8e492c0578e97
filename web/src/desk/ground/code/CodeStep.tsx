/** Code: the markup and the CSS that are handed over; every line bears the letter of its span. */
import { Button, CopyButton, SegmentedControl } from "@mantine/core";
import { type CSSProperties, useEffect, useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../../api/client";
import { spanColour } from "../../../ui/Letter";
import { useDesk, useWork } from "../../context";
import { Told } from "../../Told";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { AltText } from "./AltText";
import classes from "./Code.module.css";
import { Meanwhile } from "./Meanwhile";
import { type Output, useWritten } from "./useWritten";
import { Written } from "./Written";

const OUTPUTS: { value: Output; label: string }[] = [
  { value: "html", label: "HTML" },
  { value: "jsx", label: "JSX" },
  { value: "django", label: "Django" },
  { value: "json", label: "JSON" },
];

export function CodeStep() {
  const { reading, span, site } = useWork();
  const [output, setOutput] = useState<Output>(site.plan.hand_over.outputs[0] ?? "html");
  const { code, findings } = reading;
  const written = useWritten(output);
  const html = [
    ...(code.head_text ? [{ name: "head.html", lines: code.head, text: code.head_text }] : []),
    { name: "snippet.html", lines: code.markup, text: code.markup_text },
    { name: "picture.css", lines: code.css, text: code.css_text },
  ];
  const files = output === "html" ? html : written.files;
  // what goes into the head of a page stands above the rest of its markup
  const [first, ...others] = files?.toReversed() ?? [];
  const columns =
    others.length > 0 && first ? [others.toReversed(), [first]] : first ? [[first]] : [];
  return (
    <>
      {files ? (
        columns.map((column, i) => (
          <div
            key={column.at(-1)?.name}
            className={`${ground.column} ${classes.column}`}
            style={{ flex: `1 1 ${i ? 32 : 50}%`, ...(i ? { paddingLeft: 0 } : {}) }}
          >
            {column.map((f) => (
              <Told key={f.name}>
                <Block
                  title={f.name.split("/").pop() ?? f.name}
                  lines={f.lines}
                  text={f.text}
                  chosen={span.letter}
                />
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
      {files?.length === 0 && (
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
              value={output}
              onChange={(v) => setOutput(v as Output)}
              data={OUTPUTS}
            />
            <Copy text={files?.map((f) => f.text).join("\n") ?? ""} label="Copy all" />
            {code.without_address.length > 0 && (
              <p role="status" className={classes.why} title={code.without_address.join("\n")}>
                {code.without_address.length} of these files have no address of their host yet:{" "}
                {code.without_address.slice(0, 3).join(", ")}
                {code.without_address.length > 3 && " …"}. Paste it in{" "}
                <Link to={`/sites/${site.id}/settings`}>Site</Link>.
              </p>
            )}
          </div>
          {code.scripts.map((script) => (
            <Script key={script.name} {...script} />
          ))}
          <Told>
            <Written />
          </Told>
          <Told>
            <Meanwhile />
          </Told>
          <AltText />
          <Told>
            <Findings of={findings.filter((f) => f.step === "code")} />
          </Told>
        </div>
      </div>
    </>
  );
}

function Copy({ text, label = "Copy" }: { text: string; label?: string }) {
  return (
    <CopyButton value={text}>
      {({ copied, copy }) => (
        <Button variant="default" onClick={copy} disabled={!text} aria-live="polite">
          {copied ? "Copied" : label}
        </Button>
      )}
    </CopyButton>
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

/** By how many signs a line stands in. What of it does not fit beside goes on below, further in. */
const indentOf = (text: string) => text.length - text.trimStart().length;

function Block({
  title,
  lines,
  text,
  chosen,
}: {
  title: string;
  lines: Schemas["CodeLine"][];
  text: string;
  chosen: string;
}) {
  const { light, reading } = useDesk();
  const all = reading.spans.map((s) => s.letter);
  // a line lights the widths that it is for, one without a letter all of them
  const point = (letters: readonly string[]) => light(letters.length > 0 ? letters : all);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once it is gone
  useEffect(() => () => light([]), []);
  return (
    <figure className={classes.block}>
      <figcaption>
        <code>{title}</code>
        <Copy text={text} />
      </figcaption>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: long code is scrolled by keyboard */}
      <pre tabIndex={0} onPointerLeave={() => light([])}>
        {lines.map((line, i) => (
          <span
            // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place
            key={i}
            className={classes.line}
            onPointerEnter={() => point(line.spans)}
            data-chosen={line.spans?.includes(chosen) || undefined}
            style={{ "--indent": `${indentOf(line.text)}ch` } as CSSProperties}
          >
            <i aria-hidden="true">
              {line.spans?.map((s) => (
                <b key={s} style={{ background: spanColour(s) }}>
                  {s}
                </b>
              ))}
            </i>
            <span>
              {line.text}
              {"\n"}
            </span>
          </span>
        ))}
        {lines.length === 0 && "Nothing to hand over as long as there is no picture."}
      </pre>
    </figure>
  );
}

/** Breakpoints, containers and column rules out of what a site already has: its CSS, its design tokens, a table. */
import { Button, Checkbox, FileButton, Textarea } from "@mantine/core";
import { useState } from "react";
import { type SitePlan, useFindWidths } from "../api/queries";
import { useDropTarget } from "../ui/useDropTarget";
import { freeId } from "./NamedFrames";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

const WORDS = {
  breakpoint: "Breakpoints, as last widths",
  container: "Greatest widths",
  margin: "Room beside them",
  columns: "Numbers of columns",
  gutter: "Gutters",
  length: "Other lengths",
} as const;
type What = keyof typeof WORDS;

interface Props extends PlanProps {
  siteId: number;
  widest: string;
  setBreakpoints: (text: string) => void;
}

export function FoundWidths({ plan, set, siteId, widest, setBreakpoints }: Props) {
  const find = useFindWidths(siteId);
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState<string[]>([]);
  const look = (said: string) => find.mutate(said, { onSuccess: () => setChosen([]) });
  const bring = async (file: File | null | undefined) => {
    if (!file) return;
    const said = await file.text();
    setText(said.length > 20_000 ? "" : said);
    look(said);
  };
  const drop = useDropTarget((files) => void bring(files[0]));
  const found = find.data;
  const key = (what: string, px: number) => `${what} ${px}`;
  const of = (what: What) => (found?.widths ?? []).filter((w) => w.what === what);
  const taken = (what: What) =>
    of(what)
      .filter((w) => chosen.includes(key(w.what, w.px)))
      .map((w) => w.px);
  const posts = [...new Set([...taken("breakpoint"), ...taken("length")])].sort((a, b) => a - b);
  const container = taken("container").at(-1);
  const margin = taken("margin").at(-1);
  const gutter = taken("gutter").at(-1);
  const columns = taken("columns").at(-1);
  const apply = () => {
    const values: Partial<SitePlan> = {};
    if (posts.length) setBreakpoints(posts.map(Math.floor).join(", "));
    if (container !== undefined || margin !== undefined)
      values.container = {
        max_width_px: container ?? plan.container.max_width_px,
        margin_px: margin ?? plan.container.margin_px,
      };
    if (columns !== undefined) {
      const width = {
        kind: "columns" as const,
        columns,
        take: 1,
        gutter_px: gutter ?? 0,
        of: "container" as const,
        least_px: null,
        greatest_px: null,
      };
      const id = freeId(`one of ${columns} columns`, plan.frames);
      const spans = { [widest]: { width, height: null, stands: null } };
      values.frames = [...plan.frames, { id, name: id.replace(/-/g, " "), spans }];
    }
    set(values);
    setChosen([]);
  };
  return (
    <Row label="From your CSS">
      <div className={classes.drop} {...drop}>
        <Textarea
          aria-label="A stylesheet, design tokens or a table"
          placeholder="Paste a stylesheet, a file of design tokens (JSON) or a table (what, px), or drop the file here."
          value={text}
          onChange={(e) => setText(e.currentTarget.value)}
          minRows={2}
          maxRows={6}
          autosize
          size="xs"
          classNames={{ input: "num" }}
        />
      </div>
      <div className={classes.inline}>
        <Button variant="default" loading={find.isPending} disabled={!text.trim()} onClick={() => look(text)}>
          Look for widths
        </Button>
        <FileButton accept=".css,.json,.csv,.txt,text/css,application/json,text/csv" onChange={bring}>
          {(props) => (
            <Button variant="default" {...props}>
              Choose a file…
            </Button>
          )}
        </FileButton>
        {found && (
          <a href={`data:text/csv;charset=utf-8,${encodeURIComponent(found.csv)}`} download="widths.csv">
            What was found, as CSV
          </a>
        )}
      </div>
      {find.error && (
        <p className={classes.refused} role="alert">
          {find.error.message}
        </p>
      )}
      {found && (
        <>
          <p className="soft">In {found.read}. Choose what this site shall take; the rest of it stays as it is.</p>
          <Checkbox.Group value={chosen} onChange={setChosen}>
            <div className={classes.found}>
              {(Object.keys(WORDS) as What[])
                .filter((what) => of(what).length)
                .map((what) => (
                  <fieldset key={what}>
                    <legend>{WORDS[what]}</legend>
                    {of(what).map((w) => (
                      <Checkbox
                        key={w.px}
                        value={key(w.what, w.px)}
                        size="xs"
                        label={`${w.px}${what === "columns" ? "" : " px"} · ${w.count}×`}
                        title={w.where}
                      />
                    ))}
                  </fieldset>
                ))}
            </div>
          </Checkbox.Group>
          <div className={classes.inline}>
            <Button disabled={!chosen.length} onClick={apply}>
              Take into the form
            </Button>
            <span className="soft">
              {[
                posts.length && `breakpoints ${posts.map(Math.floor).join(", ")}`,
                container !== undefined && `container ${container} px`,
                margin !== undefined && `margin ${margin} px`,
                columns !== undefined && `a named frame, one of ${columns} columns with ${gutter ?? 0} px between`,
              ]
                .filter(Boolean)
                .join("; ")}
            </span>
          </div>
        </>
      )}
    </Row>
  );
}

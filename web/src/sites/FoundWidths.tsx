/**
 * Breakpoints, containers and column rules out of what a site already has: its CSS, its design
 * tokens, a table.
 */
import { Button, Checkbox, FileButton, Textarea } from "@mantine/core";
import { useState } from "react";
import { useFindWidths, useTakeWidths, type FoundWidth as Width } from "../api/queries";
import { useDropTarget } from "../ui/useDropTarget";
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

interface Props extends PlanProps {
  siteId: number;
  setBreakpoints: (text: string) => void;
}

export function FoundWidths({ plan, set, siteId, setBreakpoints }: Props) {
  const find = useFindWidths(siteId);
  const take = useTakeWidths(siteId);
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
  const key = (w: Width) => `${w.what} ${w.px}`;
  const of = (what: Width["what"]) => (found?.widths ?? []).filter((w) => w.what === what);
  const apply = () =>
    take.mutate(
      { plan, chosen: (found?.widths ?? []).filter((w) => chosen.includes(key(w))) },
      {
        onSuccess: (taken) => {
          set(taken);
          setBreakpoints(taken.breakpoints.join(", "));
          setChosen([]);
        },
      },
    );
  const error = find.error ?? take.error;
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
        <Button
          variant="default"
          loading={find.isPending}
          disabled={!text.trim()}
          onClick={() => look(text)}
        >
          Look for widths
        </Button>
        <FileButton
          accept=".css,.json,.csv,.txt,text/css,application/json,text/csv"
          onChange={bring}
        >
          {(props) => (
            <Button variant="default" {...props}>
              Choose a file…
            </Button>
          )}
        </FileButton>
        {found && (
          <a
            href={`data:text/csv;charset=utf-8,${encodeURIComponent(found.csv)}`}
            download="widths.csv"
          >
            What was found, as CSV
          </a>
        )}
      </div>
      {error && (
        <p className={classes.refused} role="alert">
          {error.message}
        </p>
      )}
      {found && (
        <>
          <p className="soft">
            In {found.read}. Choose what this site shall take; the rest of it stays as it is.
            {found.left_out > 0 &&
              ` Rarer widths are left out: ${found.left_out.toLocaleString("en")}.`}
          </p>
          <Checkbox.Group value={chosen} onChange={setChosen}>
            <div className={classes.found}>
              {(Object.keys(WORDS) as Width["what"][])
                .filter((what) => of(what).length)
                .map((what) => (
                  <fieldset key={what}>
                    <legend>{WORDS[what]}</legend>
                    {of(what).map((w) => (
                      <Checkbox
                        key={w.px}
                        value={key(w)}
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
            <Button disabled={!chosen.length} loading={take.isPending} onClick={apply}>
              Take into the form
            </Button>
            <span className="soft">
              Breakpoints and lengths become the breakpoints. A number of columns, with a gutter if
              you choose one, becomes a named frame.
            </span>
          </div>
        </>
      )}
    </Row>
  );
}

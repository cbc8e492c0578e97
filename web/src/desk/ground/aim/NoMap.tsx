/** In the map's place where the chosen span shows no picture, on purpose or not yet. */
import { Button } from "@mantine/core";
import { useWork } from "../../context";
import classes from "./Aim.module.css";
import { OriginalChooser } from "./OriginalChooser";
import { BriefNote } from "./SafeArea";

export function NoMap({ openFiles }: { openFiles: () => void }) {
  const { span, handle, bringing } = useWork();
  const shows = span.effective.show;
  if (shows !== "picture")
    return (
      <div className={classes.nothing}>
        <strong>
          {shows === "colour"
            ? `Span ${span.letter} shows only the colour of its frame.`
            : `Span ${span.letter} shows nothing here.`}
        </strong>
        <span>No picture is fetched there.</span>
        <Button variant="default" onClick={() => handle.treat(span.letter, { show: "picture" })}>
          Show a picture
        </Button>
      </div>
    );
  return (
    <div className={classes.nothing}>
      <strong>No picture in span {span.letter} yet</strong>
      <BriefNote />
      <span>Drop a picture here, or</span>
      <div className={classes.row}>
        <Button onClick={openFiles}>Bring a picture…</Button>
        <OriginalChooser
          give={(id, look) => bringing.give(span.letter, id, look)}
          bring={openFiles}
          label="Choose an original…"
        />
      </div>
    </div>
  );
}

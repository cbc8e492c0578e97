/** One original, opened to its map: what matters in it, what it is, where it is used. */
import { Button } from "@mantine/core";
import { AreaList } from "../picture/AreaList";
import { MapTools, useMapTools } from "../picture/MapTools";
import { PictureMap } from "../picture/PictureMap";
import { SuggestionBar, useSuggestion } from "../picture/Suggest";
import { useKeys } from "../ui/useKeys";
import { Facts } from "./Facts";
import { FileActions, type FileProps } from "./FileActions";
import classes from "./Originals.module.css";
import { useLook } from "./useLook";
import { VersionOf } from "./VersionOf";
import { Words } from "./Words";

interface Props extends FileProps {
  tags: string[];
}

export function OriginalSheet({ siteId, original, tags, close, said, say }: Props) {
  const handle = useLook(siteId, original);
  const { look, state } = handle;
  const tools = useMapTools();
  const suggestion = useSuggestion(original.id);
  useKeys([
    ["mod+Z", handle.undo],
    ["mod+shift+Z", handle.redo],
    ["mod+Y", handle.redo],
  ]);
  return (
    <div className={classes.sheet}>
      <div className={classes.sheetBar}>
        <MapTools {...tools} />
        <Button variant="default" onClick={suggestion.ask}>
          Suggest…
        </Button>
        <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
          Undo
        </Button>
        <Button variant="default" onClick={handle.redo} disabled={!handle.canRedo}>
          Redo
        </Button>
        <span className="soft" role="status">
          {state.kind === "saved" ? "Saved" : state.kind === "saving" ? "Saving…" : "Not saved"}
        </span>
        {state.kind === "failed" && <span className={classes.missing}>{state.said}</span>}
        {state.kind === "conflict" && (
          <span role="alert" className={classes.sheetBar}>
            {state.said}
            <Button onClick={() => handle.keepMine(state.theirs)}>Keep mine</Button>
            <Button variant="default" onClick={() => handle.takeTheirs(state.theirs)}>
              Take theirs
            </Button>
          </span>
        )}
        {suggestion.failed && (
          <span role="alert" className={classes.missing}>
            {suggestion.failed}
          </span>
        )}
        {suggestion.found && (
          <SuggestionBar
            suggestion={suggestion.found}
            look={look}
            setFocal={(focal) => handle.change({ focal })}
            setAreas={(areas) => handle.change({ areas })}
            dismiss={suggestion.dismiss}
          />
        )}
      </div>
      <div className={classes.sheetMap}>
        <PictureMap
          original={original}
          look={look}
          spans={[]}
          moveFocal={(focal, group) => handle.change({ focal }, group)}
          setAreas={(areas, group) => handle.change({ areas }, group)}
          settle={handle.settle}
          {...tools.map}
          suggestion={suggestion.found}
        />
      </div>
      <div className={classes.sheetFacts}>
        <AreaList areas={look.areas} set={(areas, group) => handle.change({ areas }, group)} />
        <Words siteId={siteId} original={original} tags={tags} />
        <VersionOf siteId={siteId} original={original} />
        <Facts original={original} />
        {original.notes.map((n) => (
          <p key={n}>{n}</p>
        ))}
        <FileActions siteId={siteId} original={original} close={close} said={said} say={say} />
      </div>
    </div>
  );
}

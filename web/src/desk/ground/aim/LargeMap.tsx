import { Button } from "@mantine/core";
import { AreaList } from "../../../picture/AreaList";
import { MapTools, useMapTools } from "../../../picture/MapTools";
import { type MapProps, PictureMap } from "../../../picture/PictureMap";
import { useWork } from "../../context";
import classes from "./Aim.module.css";

/** The map with room for fine work: zoomed, scrolled, areas drawn one after another. */
export function LargeMap({ map }: { map: MapProps }) {
  const tools = useMapTools();
  const { handle } = useWork();
  return (
    <div className={classes.large}>
      <div className={classes.row}>
        <MapTools {...tools} />
        <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
          Undo
        </Button>
      </div>
      <div className={classes.largeMap}>
        <PictureMap {...map} {...tools.map} />
      </div>
      <AreaList areas={map.look.areas} set={map.setAreas} />
    </div>
  );
}

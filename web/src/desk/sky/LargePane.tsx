/** One pane px for px, over everything else. */
import { Modal } from "@mantine/core";
import { PaneFrame, type PaneFrameProps } from "./PaneFrame";
import classes from "./Sky.module.css";

export function LargePane({
  close,
  ...pane
}: Omit<PaneFrameProps, "scale"> & { close: () => void }) {
  return (
    <Modal opened onClose={close} fullScreen title={`${pane.width} × ${pane.height}, px for px`}>
      <div className={classes.large}>
        <PaneFrame {...pane} scale={1} />
      </div>
    </Modal>
  );
}

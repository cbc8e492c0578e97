/** Files: the renditions needed, how they are offered, and the run that makes them. */
import { useWork } from "../../context";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { Export } from "./Export";
import { FileTable } from "./FileTable";
import { LadderCard } from "./LadderCard";
import { Offered } from "./Offered";

export function FilesStep() {
  const { reading } = useWork();
  return (
    <>
      <div className={ground.column} style={{ flex: "1 1 64%" }}>
        {reading.files.length === 0 ? (
          <p className="soft">No files are needed as long as there is no picture. Choose one in Aim.</p>
        ) : (
          <FileTable />
        )}
      </div>
      <div className={ground.column} style={{ flex: "1 1 36%" }}>
        <div className={ground.stack}>
          <Export />
          <Offered />
          <LadderCard />
          <Findings of={reading.findings.filter((f) => f.step === "files")} />
        </div>
      </div>
    </>
  );
}

/** Files: the renditions needed, how they are offered, and the run that makes them. */
import { useState } from "react";
import { useWork } from "../../context";
import { Told } from "../../Told";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { BytesChart } from "./BytesChart";
import { Compare, type Compared } from "./Compare";
import { Export } from "./Export";
import { FileTable } from "./FileTable";
import { LadderCard } from "./LadderCard";
import { Offered } from "./Offered";

export function FilesStep() {
  const { reading } = useWork();
  const [compared, setCompared] = useState<Compared>();
  return (
    <>
      <section
        className={ground.column}
        style={{ flex: "1 1 64%" }}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: many files are scrolled by keyboard
        tabIndex={0}
        aria-label="All files"
      >
        {reading.files.length === 0 ? (
          <p className="soft">
            No files are needed as long as there is no picture. Choose one in Aim.
          </p>
        ) : (
          <Told>
            <FileTable compare={(row, format) => setCompared({ row, format })} />
          </Told>
        )}
      </section>
      <div className={ground.column} style={{ flex: "1 1 36%" }}>
        <div className={ground.stack}>
          <Export />
          <Offered />
          <LadderCard />
          <Told>
            <BytesChart />
            <Findings of={reading.findings.filter((f) => f.step === "files")} />
          </Told>
        </div>
      </div>
      {compared && <Compare of={compared} close={() => setCompared(undefined)} />}
    </>
  );
}

/**
 * Aim: where the picture sits in its frame, per span; and another original where the first cannot
 * serve.
 */
import { useRef } from "react";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import { Told } from "../../Told";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { ItemsAdvice } from "../items/ItemsAdvice";
import { OneRatio } from "../items/OneRatio";
import { AdviceCard } from "./AdviceCard";
import { AskAlt } from "./AskAlt";
import { AtCursor } from "./AtCursor";
import { MapDeck } from "./MapDeck";
import { TreatmentFields } from "./TreatmentFields";
import { useAimed } from "./useAimed";
import { useCropping } from "./useCropping";

export function AimStep() {
  const { reading, handle, site } = useWork();
  const { aimed } = useAimed();
  const openFiles = useRef<() => void>(null);
  const inHand = useCropping();
  const asksAlt = aimed?.original.alt === null && partOf(handle.draft, handle.part).alt == null;
  return (
    <>
      <MapDeck openFiles={openFiles} inHand={inHand} />
      <TreatmentFields openFiles={openFiles} inHand={inHand} />
      <div className={ground.column} style={{ flex: "1 1 300px", paddingLeft: 0 }}>
        <div className={ground.stack}>
          <Told>
            <Findings of={reading.findings.filter((f) => f.step === "aim" && f.rule !== "area")} />
            {reading.items && <ItemsAdvice />}
            <AdviceCard />
            <OneRatio />
          </Told>
          {aimed && asksAlt && (
            <AskAlt key={aimed.original.id} site={site.id} original={aimed.original} />
          )}
          <Told moves>
            <AtCursor />
          </Told>
        </div>
      </div>
    </>
  );
}

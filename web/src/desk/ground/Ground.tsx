/** What one works with, by step. */
import { memo } from "react";
import type { Step } from "../Steps";
import { AimStep } from "./aim/AimStep";
import { CodeStep } from "./code/CodeStep";
import { FilesStep } from "./files/FilesStep";
import { FrameStep } from "./frame/FrameStep";
import { ProofStep } from "./proof/ProofStep";

const GROUNDS: Record<Step, () => React.ReactNode> = {
  frame: FrameStep,
  aim: AimStep,
  files: FilesStep,
  code: CodeStep,
  proof: ProofStep,
};

/** Only what follows the cursor is drawn anew with it. */
export const Ground = memo(function Ground({ step }: { step: Step }) {
  const Work = GROUNDS[step] ?? AimStep;
  return <Work />;
});

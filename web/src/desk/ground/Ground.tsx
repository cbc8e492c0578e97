/** What one works with, by step. */
import { memo } from "react";
import type { Step } from "../Steps";
import { AimStep } from "./aim/AimStep";
import { CodeStep } from "./code/CodeStep";
import { FilesStep } from "./files/FilesStep";
import { FrameStep } from "./frame/FrameStep";
import { ProofStep } from "./proof/ProofStep";
import { WordsStep } from "./words/WordsStep";

const GROUNDS: Record<Step, () => React.ReactNode> = {
  frame: FrameStep,
  aim: AimStep,
  words: WordsStep,
  files: FilesStep,
  code: CodeStep,
  proof: ProofStep,
};

/** Only what follows the cursor is drawn anew with it. */
export const Ground = memo(function Ground({ step }: { step: Step }) {
  const Work = GROUNDS[step] ?? AimStep;
  return <Work />;
});

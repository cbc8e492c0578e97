/**
 * What one works with, by step. Each is a piece of its own; those that are not shown yet are loaded
 * at rest.
 */
import { memo, useEffect } from "react";
import { later, loadAtRest } from "../../ui/later";
import type { Step } from "../Steps";

const GROUNDS = {
  frame: later(() => import("./frame/FrameStep").then((m) => m.FrameStep)),
  aim: later(() => import("./aim/AimStep").then((m) => m.AimStep)),
  words: later(() => import("./words/WordsStep").then((m) => m.WordsStep)),
  files: later(() => import("./files/FilesStep").then((m) => m.FilesStep)),
  code: later(() => import("./code/CodeStep").then((m) => m.CodeStep)),
  proof: later(() => import("./proof/ProofStep").then((m) => m.ProofStep)),
} satisfies Record<Step, unknown>;

/** Ask for a step before it is shown. */
export const loadStep = (step: string) =>
  void (GROUNDS[step as Step] ?? GROUNDS.aim).load().catch(() => undefined);

/** Only what follows the cursor is drawn anew with it. */
export const Ground = memo(function Ground({ step }: { step: Step }) {
  const Work = GROUNDS[step] ?? GROUNDS.aim;
  useEffect(() => loadAtRest(Object.values(GROUNDS)), []);
  return <Work />;
});

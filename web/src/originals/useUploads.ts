/** Many files on their way at once, three at a time, each with its own progress and outcome. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useRef, useState } from "react";
import { ProblemError } from "../api/client";
import { keys, type Original } from "../api/queries";
import { upload } from "../api/upload";

export interface Upload {
  id: number;
  name: string;
  progress: number;
  state: "waiting" | "going" | "here" | "refused";
  error?: string;
  original?: Original;
}

const isBusy = (u: Upload) => u.state === "going" || u.state === "waiting";

const AT_ONCE = 3;
/** How long a file waits, in ms, where the server is too busy to open it, and how often. */
const BUSY_WAIT = 4000;
const BUSY_TRIES = 15;
let lastId = 0;

/** A file sent, and again after a while as long as others are being opened. */
async function sent(
  site: number,
  job: Job,
  patch: (values: Partial<Upload>) => void,
): Promise<Original> {
  for (let tries = 1; ; tries++) {
    try {
      return await upload(site, job.file, (progress) => patch({ state: "going", progress }));
    } catch (e) {
      if (!(e instanceof ProblemError && e.status === 503) || tries === BUSY_TRIES) throw e;
      patch({ state: "waiting", progress: 0 });
      await new Promise((done) => setTimeout(done, BUSY_WAIT));
    }
  }
}

interface Job {
  id: number;
  file: File;
  /** Called once: with what has come of it, or with nothing where it was refused. */
  done: (original?: Original) => void;
}

export function useUploads(site: number) {
  const [list, setList] = useState<Upload[]>([]);
  const queue = useRef<Job[]>([]);
  const going = useRef(0);
  const queries = useQueryClient();

  const patch = useCallback(
    (id: number, values: Partial<Upload>) =>
      setList((l) => l.map((u) => (u.id === id ? { ...u, ...values } : u))),
    [],
  );
  const next = useCallback(() => {
    while (going.current < AT_ONCE) {
      const job = queue.current.shift();
      if (!job) return;
      going.current++;
      patch(job.id, { state: "going" });
      sent(site, job, (values) => patch(job.id, values))
        .then(async (original) => {
          patch(job.id, { state: "here", progress: 1, original });
          await queries.invalidateQueries({ queryKey: keys.originals(site) });
          job.done(original);
        })
        .catch((e: Error) => {
          patch(job.id, { state: "refused", error: e.message });
          job.done();
        })
        .finally(() => {
          going.current--;
          next();
        });
    }
  }, [site, patch, queries]);

  /** Send files; each comes to an original, or to nothing where it was refused. */
  const bring = useCallback(
    (files: File[]) => {
      const jobs: Job[] = [];
      const arriving = files.map((file) => {
        const id = ++lastId;
        return {
          id,
          original: new Promise<Original | undefined>((done) => jobs.push({ id, file, done })),
        };
      });
      queue.current.push(...jobs);
      setList((l) => [
        // what came before is done with, unless it is still coming
        ...(l.some(isBusy) ? l : l.filter((u) => u.state !== "here")),
        ...jobs.map((j) => ({
          id: j.id,
          name: j.file.name,
          progress: 0,
          state: "waiting" as const,
        })),
      ]);
      next();
      return arriving;
    },
    [next],
  );
  const dismiss = useCallback((id: number) => setList((l) => l.filter((u) => u.id !== id)), []);
  const clear = useCallback(() => setList((l) => l.filter(isBusy)), []);
  return { list, bring, dismiss, clear };
}

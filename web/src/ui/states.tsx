import { Button, Skeleton, Stack } from "@mantine/core";
import type { ReactNode } from "react";
import classes from "./states.module.css";

/** What happened and what to do, with a way to try again. */
export function Failure({ error, again }: { error: unknown; again?: () => void }) {
  return (
    <div className={classes.note} role="alert">
      <strong>{error instanceof Error ? error.message : "Something went wrong."}</strong>
      {again && (
        <Button variant="default" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}

export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className={classes.note}>
      <strong>{title}</strong>
      {children}
    </div>
  );
}

export function Rows({ n = 4, height = 56 }: { n?: number; height?: number }) {
  return (
    <Stack gap="sm" aria-busy="true" role="status" aria-label="Loading">
      {Array.from({ length: n }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: placeholders have no identity
        <Skeleton key={i} height={height} radius="md" />
      ))}
    </Stack>
  );
}

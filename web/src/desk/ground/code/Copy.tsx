import { Button, CopyButton } from "@mantine/core";

/** Copies a text; without one it cannot be pressed. */
export function Copy({ text, label = "Copy" }: { text: string; label?: string }) {
  return (
    <CopyButton value={text}>
      {({ copied, copy }) => (
        <Button variant="default" onClick={copy} disabled={!text} aria-live="polite">
          {copied ? "Copied" : label}
        </Button>
      )}
    </CopyButton>
  );
}

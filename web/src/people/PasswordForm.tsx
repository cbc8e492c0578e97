import { Button, PasswordInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { ProblemError } from "../api/client";
import { useChangePassword } from "./queries";

/** One's own password. Other sessions end with the old one. */
export function PasswordForm({ done }: { done: () => void }) {
  const change = useChangePassword();
  const [before, setBefore] = useState("");
  const [after, setAfter] = useState("");
  const error = change.error instanceof ProblemError ? change.error : undefined;
  const submit = (e: FormEvent) => {
    e.preventDefault();
    change.mutate({ old: before, new: after }, { onSuccess: done });
  };
  return (
    <form onSubmit={submit} style={{ display: "grid", gap: 12 }}>
      <PasswordInput
        label="Present password"
        data-autofocus
        required
        value={before}
        onChange={(e) => setBefore(e.currentTarget.value)}
        autoComplete="current-password"
        error={error?.at("old")}
      />
      <PasswordInput
        label="New password"
        description="At least 8 characters. You stay signed in here; everywhere else you are signed out."
        required
        value={after}
        onChange={(e) => setAfter(e.currentTarget.value)}
        autoComplete="new-password"
        error={error?.at("new") ?? (error && !error.at("old") ? error.message : undefined)}
      />
      <Button type="submit" loading={change.isPending}>
        Change it
      </Button>
    </form>
  );
}

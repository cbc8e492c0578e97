import { Button, PasswordInput, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { useSignIn } from "../api/queries";
import { Entrance, Or } from "../ui/Entrance";

/** Name and password; on a demo installation one press is enough. */
export function SignIn({ demo }: { demo: boolean }) {
  const signIn = useSignIn();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const submit = (e: FormEvent) => {
    e.preventDefault();
    signIn.mutate({ name, password });
  };
  return (
    <Entrance>
      <p>Pictures that look right at every width.</p>
      {demo && (
        <Button
          size="md"
          fullWidth
          onClick={() => signIn.mutate("demo")}
          loading={signIn.isPending}
        >
          Enter as the demo designer
        </Button>
      )}
      {demo && <Or>or with your own name</Or>}
      <form onSubmit={submit}>
        <TextInput
          label="Name"
          size="sm"
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
          required
          autoComplete="username"
        />
        <PasswordInput
          label="Password"
          size="sm"
          value={password}
          onChange={(e) => setPassword(e.currentTarget.value)}
          required
          autoComplete="current-password"
          error={signIn.error?.message}
        />
        <Button
          type="submit"
          variant={demo ? "default" : "filled"}
          size="sm"
          loading={signIn.isPending}
        >
          Sign in
        </Button>
      </form>
    </Entrance>
  );
}

/**
 * Where a one-time link leads: a new person chooses a name and a password; who is signed in takes
 * the share.
 */
import { Button, Loader, PasswordInput, TextInput } from "@mantine/core";
import { type FormEvent, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { ProblemError } from "../api/client";
import { Entrance, Or } from "../ui/Entrance";
import { useComeIn, useWelcome } from "./queries";

const SHARES = { owner: "share and change", edit: "change", look: "look at" };

export function WelcomePage() {
  const { token = "" } = useParams();
  const welcome = useWelcome(token);
  const comeIn = useComeIn(token);
  const navigate = useNavigate();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const inside = { onSuccess: () => navigate("/", { replace: true }) };
  const submit = (e: FormEvent) => {
    e.preventDefault();
    comeIn.mutate({ name, password }, inside);
  };
  const error = comeIn.error instanceof ProblemError ? comeIn.error : undefined;
  const told = welcome.data;
  return (
    <Entrance>
      {welcome.isPending && <Loader aria-label="Loading" />}
      {welcome.isError && (
        <>
          <p role="alert">{welcome.error.message}</p>
          <Link to="/">To the sign-in</Link>
        </>
      )}
      {told && (
        <p>
          {told.purpose === "owner"
            ? "You are the first here. Choose a name and a password: this installation is yours."
            : `${told.invited_by || "Somebody"} lets you ${SHARES[told.role ?? "look"]} ${told.site ? `the site ${told.site}` : "a site"}.`}
        </p>
      )}
      {told?.signed_in_as && told.purpose === "person" && (
        <>
          <Button
            size="md"
            fullWidth
            onClick={() => comeIn.mutate("me", inside)}
            loading={comeIn.isPending}
          >
            Take it as {told.signed_in_as}
          </Button>
          <Or>or as somebody new</Or>
        </>
      )}
      {told && (
        <form onSubmit={submit}>
          <TextInput
            label="Name"
            description="Letters, digits and . + - _ @"
            size="sm"
            value={name}
            onChange={(e) => setName(e.currentTarget.value)}
            required
            autoComplete="username"
            error={error?.at("name")}
          />
          <PasswordInput
            label="Password"
            description="At least 8 characters"
            size="sm"
            value={password}
            onChange={(e) => setPassword(e.currentTarget.value)}
            required
            autoComplete="new-password"
            error={
              error?.at("password") ?? (error && !error.at("name") ? error.message : undefined)
            }
          />
          <Button type="submit" size="sm" loading={comeIn.isPending}>
            Come in
          </Button>
        </form>
      )}
    </Entrance>
  );
}

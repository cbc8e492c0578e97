import { describe, expect, it } from "vitest";
import { asProblem, data, ProblemError } from "./client";

const answer = (status: number, body: unknown) =>
  Promise.resolve({
    data: status < 400 ? body : undefined,
    error: status < 400 ? undefined : body,
    response: new Response(null, { status }),
  });

const failure = (call: ReturnType<typeof answer>) =>
  data(call).catch((e) => e) as Promise<ProblemError>;

describe("answers of the server", () => {
  it("a good one is its data", async () => {
    expect(await data(answer(200, { a: 1 }))).toEqual({ a: 1 });
  });
  it("a bad one is a problem with its sentence at the field", async () => {
    const problem = {
      type: "",
      title: "",
      status: 422,
      detail: "Too wide.",
      errors: [{ field: "plan.breakpoints", sentence: "Twice." }],
    };
    const error = await failure(answer(422, problem));
    expect(error).toBeInstanceOf(ProblemError);
    expect([error.message, error.status, error.at("breakpoints"), error.at("name")]).toEqual([
      "Too wide.",
      422,
      "Twice.",
      undefined,
    ]);
  });
  it("none at all is being offline", async () => {
    const error = await failure(Promise.reject(new TypeError("network")));
    expect(error.status).toBe(0);
  });
  it("what is no problem document still says what to do", () => {
    expect(asProblem("<html>", 502).detail).toContain("Try again");
  });
});

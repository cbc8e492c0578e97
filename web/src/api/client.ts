/**
 * The one way to the server: typed by the OpenAPI document, errors as problem documents (RFC 9457).
 */
import createClient, { type Middleware } from "openapi-fetch";
import { fetchOnce } from "./first";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];

/** What the server said no to, or `status` 0 when it could not be reached at all. */
export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  get status() {
    return this.problem.status;
  }
  /** The sentence for a field whose path ends so, if one is meant. */
  at(...ends: string[]): string | undefined {
    return this.problem.errors?.find((e) =>
      ends.some((end) => e.field === end || e.field.endsWith(`.${end}`)),
    )?.sentence;
  }
}

const OFFLINE: Problem = {
  type: "about:blank",
  title: "Not reached",
  status: 0,
  detail: "The server does not answer. Changes wait here until it does.",
};

export function csrfToken(): string {
  return /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";
}

const guard: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
};

export const client = createClient<paths>({
  baseUrl: "",
  credentials: "same-origin",
  fetch: fetchOnce,
});
client.use(guard);

/** As the server tells it: a field that may be left out of what is sent is always there. */
export type Told<T> = T extends object ? { [K in keyof T]-?: Told<T[K]> } : T;

/** The data of an answer, or a ProblemError. */
export async function data<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<Told<T>> {
  let answer: Awaited<typeof call>;
  try {
    answer = await call;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    throw new ProblemError(OFFLINE);
  }
  if (!answer.response.ok) throw new ProblemError(asProblem(answer.error, answer.response.status));
  return answer.data as Told<T>;
}

/**
 * The same for answers that hold pairs: openapi-fetch widens `[number, number]` to `number[]`, the
 * document does not.
 */
export const dataAs = <T>(
  call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<T> =>
  data(call as Promise<{ data?: T; error?: unknown; response: Response }>) as Promise<T>;

export function asProblem(error: unknown, status: number): Problem {
  if (error && typeof error === "object" && "detail" in error && "status" in error)
    return error as Problem;
  return {
    ...OFFLINE,
    status,
    title: "Something went wrong",
    detail: "The server failed. Try again.",
  };
}

/**
 * What the screen asks for first comes in one answer, which the document itself has asked for:
 * lines of JSON, each for one address of the API. Whoever asks for one of those gets it from there,
 * once; everything else is asked for as ever.
 */

interface Line {
  address: string;
  status: number;
  body: unknown;
}

/** Answers that are on their way, each until it has been taken. */
const coming = new Map<string, Promise<Line | undefined>>();
/** Settled as soon as it is known which addresses come; undefined: none do. */
let announced: Promise<void> | undefined;

type Here = (line?: Line) => void;

const expect = (address: string): Here => {
  let here: Here = () => undefined;
  const line = new Promise<Line | undefined>((done) => {
    here = done;
  });
  coming.set(address, line);
  return here;
};

declare global {
  interface Window {
    /** What the document has asked for (public/first.js). */
    firstAnswers?: Promise<Response>;
  }
}

/** Take in what the document has asked for; where it has not, nothing. */
export function takeFirst() {
  const { firstAnswers } = window;
  if (!firstAnswers) return;
  const waiting = new Map<string, Here>();
  let isKnown: () => void = () => undefined;
  announced = new Promise((done) => {
    isKnown = done;
  });
  const take = (told: Line & { addresses?: string[] }) => {
    if (told.addresses) {
      for (const address of told.addresses) waiting.set(address, expect(address));
      isKnown();
    } else waiting.get(told.address)?.(told);
  };
  void read(firstAnswers, take)
    .catch(() => undefined) // what has not come is asked for by itself
    .then(() => {
      isKnown();
      for (const here of waiting.values()) here();
      announced = undefined;
    });
}

async function read(answers: Promise<Response>, take: (line: Line) => void) {
  const response = await answers;
  if (!response.ok || !response.body) return;
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const { value, done } = await reader.read();
    if (done) return;
    const lines = (rest + value).split("\n");
    rest = lines.pop() ?? "";
    for (const text of lines) take(JSON.parse(text) as Line);
  }
}

/** Like `fetch`, from what comes first where it is there. */
export async function fetchOnce(request: Request): Promise<Response> {
  if (request.method === "GET" && announced) await announced;
  const { pathname, search } = new URL(request.url);
  const own = request.method === "GET" ? coming.get(pathname + search) : undefined;
  if (!own) {
    // what is changed makes old what has not been taken yet
    if (request.method !== "GET") coming.clear();
    return fetch(request);
  }
  coming.delete(pathname + search);
  const line = await own;
  if (!line) return fetch(request);
  return new Response(line.status === 204 ? null : JSON.stringify(line.body), {
    status: line.status,
    headers: { "Content-Type": "application/json" },
  });
}

/** One file to the server with progress, which fetch cannot tell. */
import { asProblem, csrfToken, ProblemError } from "./client";
import type { Original } from "./queries";

export function upload(
  site: number,
  file: File,
  progress: (share: number) => void,
  signal?: AbortSignal,
): Promise<Original> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/sites/${site}/originals`);
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.upload.onprogress = (e) => e.lengthComputable && progress(e.loaded / e.total);
    request.onload = () => {
      let body: unknown;
      try {
        body = JSON.parse(request.responseText);
      } catch {
        body = undefined;
      }
      if (request.status === 201) resolve(body as Original);
      else reject(new ProblemError(asProblem(body, request.status)));
    };
    request.onerror = () => reject(new ProblemError(asProblem(undefined, 0)));
    request.onabort = () => reject(new DOMException("stopped", "AbortError"));
    signal?.addEventListener("abort", () => request.abort());
    const form = new FormData();
    form.append("file", file);
    request.send(form);
  });
}

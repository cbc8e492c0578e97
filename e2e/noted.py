"""Pages that are tried one after the other, each in a frame of its own, and a server that notes
what each of them fetches: whatever the browser, nobody has to drive it."""

from __future__ import annotations

import http.server
import json
import threading
from collections.abc import Sequence

from delivered import PX

#: What opens every case, one after the other, and says when it is through.
HARNESS = """<!doctype html><title>cases</title><body style="margin:0"><script>
(async () => {
  const dark = matchMedia("(prefers-color-scheme: dark)").matches;
  const boxes = {}, steps = {};
  for (const c of CASES.filter((c) => !c.steps)) {
    const f = document.createElement("iframe");
    f.style = `border:0;width:${c.width}px;height:${c.height}px`;
    document.body.append(f);
    // what reads ahead has to know how large the frame is
    f.getBoundingClientRect();
    const loaded = new Promise((r) => { f.onload = r; });
    f.src = `/${c.name}/page.html`;
    await loaded;
    const fetched = () => f.contentWindow.performance.getEntriesByType("resource")
      .some((e) => e.name.includes("/images/"));
    for (let n = 0; c.fetches && n < 100 && !fetched(); n++)
      await new Promise((r) => setTimeout(r, 50));
    await new Promise((r) => setTimeout(r, 80)); // for what comes after it
    const shown = f.contentDocument.querySelector(c.shows ?? "body");
    const r = shown ? shown.getBoundingClientRect() : { width: 0, height: 0 };
    boxes[c.name] = [r.width, r.height];
    f.remove();
  }
  // of those with steps all at once, each opened anew at every step
  const many = CASES.filter((c) => c.steps).map((c) => [c]);
  for (let n = 0; many.some(([c]) => n < c.steps.length); n++) {
    for (const one of many) {
      one[1]?.remove();
      one[1] = document.createElement("iframe");
      document.body.append(one[1]);
    }
    await Promise.all(
      many.map(async ([c, f]) => {
        const [width, height] = c.steps[n];
        f.style = `position:absolute;left:0;top:0;border:0;width:${width}px;height:${height}px`;
        f.getBoundingClientRect();
        const loaded = new Promise((r) => { f.onload = r; });
        f.src = `/${c.name}.${n}/page.html`;
        await loaded;
        const fetched = () => f.contentWindow.performance.getEntriesByType("resource")
          .some((e) => e.name.includes("/images/"));
        for (let i = 0; c.fetches[n] && i < 60 && !fetched(); i++)
          await new Promise((r) => setTimeout(r, 50));
      }),
    );
    await new Promise((r) => setTimeout(r, 80)); // for what comes after it
    for (const [c, f] of many) {
      const shown = f.contentDocument.querySelector(c.shows);
      const img = shown?.matches("img") ? shown : shown?.querySelector("img");
      const r = shown?.getBoundingClientRect() ?? { width: 0, height: 0 };
      const style =
        shown && f.contentWindow.getComputedStyle(img ?? shown, img ? null : "::before");
      const at = style ? (img ? style.objectPosition : style.backgroundPosition) : "";
      (steps[c.name] ??= []).push([r.width, r.height, at]);
    }
  }
  await fetch(`/done?dark=${dark}&density=${devicePixelRatio}`, {
    method: "POST",
    body: JSON.stringify({ boxes, steps }),
  });
})();
</script>"""


class Noted:
    """A server that gives out pages by the name of their case, and notes which files of each are
    fetched, and how large what it shows is, in CSS px."""

    def __init__(self) -> None:
        self.pages: dict[str, dict[str, str]] = {}
        self.fetched: dict[str, list[str]] = {}
        self.harness = ""
        self.told = ""
        self.boxes: dict[str, tuple[float, float]] = {}
        self.steps: dict[str, list[tuple[float, float, str]]] = {}
        self.done = threading.Event()
        noted = self

        class Handler(http.server.BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                path, _, query = self.path.partition("?")
                case, _, rest = path.strip("/").partition("/")
                body, kind = b"", "text/plain"
                if path == "/":
                    body, kind = noted.harness.encode(), "text/html"
                elif path == "/done":
                    noted.told = query
                    noted.done.set()
                elif rest.startswith("images/"):
                    noted.fetched.setdefault(case, []).append(rest)
                    body, kind = PX, "image/png"
                elif rest in noted.pages.get(case.partition(".")[0], {}):
                    body = noted.pages[case.partition(".")[0]][rest].encode()
                    kind = "text/css" if rest.endswith(".css") else "text/html"
                self.send_response(200)
                self.send_header("Content-Type", kind)
                self.send_header("Content-Length", str(len(body)))
                self.send_header("Cache-Control", "no-store")
                self.end_headers()
                self.wfile.write(body)

            def do_POST(self) -> None:
                length = int(self.headers["Content-Length"])
                told = json.loads(self.rfile.read(length))
                noted.boxes, noted.steps = told["boxes"], told["steps"]
                self.do_GET()

            def log_message(self, *args: object) -> None:
                pass

        self.server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        self.address = f"http://127.0.0.1:{self.server.server_port}/"
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    def opens(self, cases: Sequence[dict[str, object]]) -> None:
        """What its first page tries: the name, width and height of each case, in CSS px, and
        whether it `fetches` a file, which is waited for. A case with `steps` is opened at each of
        these sizes, beside all others that have some: `fetched` has what it then asks for under its
        name, a dot and the number of the step, `steps` the size of what shows and where the picture
        lies in it."""
        self.harness = HARNESS.replace("CASES", json.dumps(cases))

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
  const boxes = {};
  for (const c of CASES) {
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
  await fetch(`/done?dark=${dark}&density=${devicePixelRatio}`, {
    method: "POST",
    body: JSON.stringify(boxes),
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
                elif rest in noted.pages.get(case, {}):
                    body = noted.pages[case][rest].encode()
                    kind = "text/css" if rest.endswith(".css") else "text/html"
                self.send_response(200)
                self.send_header("Content-Type", kind)
                self.send_header("Content-Length", str(len(body)))
                self.send_header("Cache-Control", "no-store")
                self.end_headers()
                self.wfile.write(body)

            def do_POST(self) -> None:
                length = int(self.headers["Content-Length"])
                noted.boxes = json.loads(self.rfile.read(length))
                self.do_GET()

            def log_message(self, *args: object) -> None:
                pass

        self.server = http.server.ThreadingHTTPServer(("127.0.0.1", 0), Handler)
        self.address = f"http://127.0.0.1:{self.server.server_port}/"
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    def opens(self, cases: Sequence[dict[str, object]]) -> None:
        """What its first page tries: the name, width and height of each case, in CSS px, and
        whether it `fetches` a file, which is waited for."""
        self.harness = HARNESS.replace("CASES", json.dumps(cases))

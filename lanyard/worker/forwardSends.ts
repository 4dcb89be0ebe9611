/**
 * Runs beside a page's own scripts, in a page that asks to sign in: says to Lanyard's script in the same page what they
 * send. The page knows all of it already, and nothing of it leaves the page.
 */

/** Whole within itself: it is handed to the browser as text. @param channel name of the event that tells */
export function forwardSends(channel: string): void {
  const MOST = 20_000;
  const marked = window as typeof window & { [key: symbol]: boolean | undefined };
  const here = Symbol.for("lanyard-forwards");
  if (marked[here]) return;
  Object.defineProperty(marked, here, { value: true });

  const tell = (method: string, to: string, contentType: string, body: unknown, headers: Record<string, string>) => {
    try {
      if (!/^(post|put|patch)$/i.test(method)) return;
      const said =
        typeof body === "string"
          ? { body, contentType }
          : body instanceof URLSearchParams
            ? { body: body.toString(), contentType: contentType || "application/x-www-form-urlencoded" }
            : body instanceof FormData
              ? { body: [...body].filter(([, value]) => typeof value === "string"), contentType: "multipart/form-data" }
              : null;
      if (!said) return;
      const detail = JSON.stringify({ to, ...said, headers });
      if (detail.length <= MOST) window.dispatchEvent(new CustomEvent(channel, { detail }));
    } catch {
      // The page goes on as if nobody had looked.
    }
  };
  const plain = (headers: HeadersInit | undefined): Record<string, string> => Object.fromEntries(new Headers(headers));

  const fetchOfPage = window.fetch;
  window.fetch = function (this: unknown, ...given: Parameters<typeof fetch>) {
    try {
      const [input, init] = given;
      if (input instanceof Request && init?.body === undefined) {
        const { method, url } = input;
        const headers = plain(input.headers);
        if (/^(post|put|patch)$/i.test(method))
          void input
            .clone()
            .text()
            .then(
              (body) => tell(method, url, headers["content-type"] ?? "", body, headers),
              () => undefined,
            );
      } else {
        const headers = { ...(input instanceof Request ? plain(input.headers) : {}), ...plain(init?.headers) };
        const method = init?.method ?? (input instanceof Request ? input.method : "GET");
        const to = input instanceof Request ? input.url : String(input);
        tell(method, to, headers["content-type"] ?? "", init?.body, headers);
      }
    } catch {
      // As above.
    }
    return Reflect.apply(fetchOfPage, this ?? window, given);
  } as typeof window.fetch;

  const asked = new WeakMap<XMLHttpRequest, { method: string; to: string; headers: Record<string, string> }>();
  const { open, send, setRequestHeader } = XMLHttpRequest.prototype;
  XMLHttpRequest.prototype.open = function (this: XMLHttpRequest, ...given: [method: string, to: string | URL]) {
    asked.set(this, { method: String(given[0]), to: String(given[1]), headers: {} });
    return Reflect.apply(open, this, given);
  } as typeof open;
  XMLHttpRequest.prototype.setRequestHeader = function (...given) {
    const request = asked.get(this);
    if (request) request.headers[String(given[0]).toLowerCase()] = String(given[1]);
    return Reflect.apply(setRequestHeader, this, given);
  };
  XMLHttpRequest.prototype.send = function (...given) {
    const request = asked.get(this);
    if (request) tell(request.method, request.to, request.headers["content-type"] ?? "", given[0], request.headers);
    return Reflect.apply(send, this, given);
  };
}

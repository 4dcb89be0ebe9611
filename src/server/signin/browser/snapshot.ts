/**
 * The page as it is drawn, as HTML text that the reader of pages understands: shadow roots in their places, what nobody
 * sees marked hidden, every field and button with a mark by which it is found again. No value that was typed is in it.
 */

export const MARK = "data-galtry-mark";

/** Runs within the page; plain text, so that nothing is added to it on its way. @returns at most three million characters */
export const SNAPSHOT = `(() => {
  const MOST = 15000;
  const void_ = /^(area|base|br|col|embed|hr|img|input|link|meta|source|track|wbr)$/;
  const control = /^(input|select|textarea|button|form|a)$/;
  const text = (s) => s.replace(/&/g, "&amp;").replace(/</g, "&lt;");
  const value = (s) => s.replace(/&/g, "&amp;").replace(/"/g, "&quot;");
  let count = 0;
  let marks = 0;
  const out = [];
  const boxed = (e) => {
    const box = e.getBoundingClientRect();
    return box.width > 2 && box.height > 2 && box.right + scrollX > 0 && box.bottom + scrollY > 0;
  };
  const walk = (node) => {
    if (node.nodeType === 3) return void out.push(text(node.data));
    if (node.nodeType !== 1 || ++count > MOST) return;
    const name = node.localName;
    if (name === "script" || name === "style" || name === "noscript" || name === "template") {
      if (name === "script") out.push("<script></script>");
      return;
    }
    const seen = node.checkVisibility ? node.checkVisibility({ opacityProperty: true, visibilityProperty: true }) : true;
    const isControl = control.test(name) || node.getAttribute("role") === "button" || node.hasAttribute("onclick") || /btn|button|submit/i.test(node.getAttribute("class") || "");
    out.push("<", name);
    for (const a of node.attributes) {
      if (a.name === "style" || a.name === "${MARK}" || !/^[a-z][\\w:.-]*$/i.test(a.name)) continue;
      if (a.name === "value" && name === "input" && !/^(submit|button|image|checkbox|radio|hidden)$/.test(node.type)) continue;
      if (a.name === "hidden" || (a.name === "src" && name !== "iframe")) continue;
      out.push(" ", a.name, '="', value(a.value.slice(0, 2000)), '"');
    }
    if (!seen || (isControl && name !== "form" && !boxed(node))) out.push(" hidden");
    if (isControl) {
      const mark = String(++marks);
      node.setAttribute("${MARK}", mark);
      out.push(' ${MARK}="', mark, '"');
      if (name === "input" && node.type !== "password") {
        const masked = getComputedStyle(node).webkitTextSecurity;
        if (masked && masked !== "none") out.push(' style="-webkit-text-security: disc"');
      }
    }
    out.push(">");
    if (void_.test(name)) return;
    const inner = node.shadowRoot ? node.shadowRoot.childNodes : name === "slot" && node.assignedNodes().length ? node.assignedNodes() : node.childNodes;
    for (const child of inner) walk(child);
    out.push("</", name, ">");
  };
  walk(document.documentElement);
  return "<!doctype html>" + out.join("").slice(0, 3000000);
})()`;

/** Before a page's own scripts: closed shadow roots are open to this browser, and there is no way out beside the proxy. */
export const BEFORE_SCRIPTS = `(() => {
  const attach = Element.prototype.attachShadow;
  Element.prototype.attachShadow = function (init) { return attach.call(this, { ...init, mode: "open" }); };
  for (const name of ["RTCPeerConnection", "webkitRTCPeerConnection", "RTCDataChannel", "WebTransport"]) delete window[name];
})()`;

/** What the page's origin keeps besides cookies: its storage, and its databases as far as JSON can carry them (`engine.ts`). */
export const STORAGE = `(async () => {
  const all = (storage) => { try { return Object.entries(storage).map(([k, v]) => [k, String(v)]); } catch { return []; } };
  const base64 = (bytes) => btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(""));
  const cloned = (value, depth = 0) => {
    if (depth > 20) throw new Error("too deep");
    if (value === undefined) return ["u"];
    if (value === null || ["string", "boolean"].includes(typeof value) || Number.isFinite(value)) return ["v", value];
    if (value instanceof Date) return ["d", value.getTime()];
    if (value instanceof ArrayBuffer) return ["b", base64(new Uint8Array(value)), "buffer"];
    if (value instanceof Uint8Array) return ["b", base64(value), "view"];
    if (Array.isArray(value)) return ["a", value.map((one) => cloned(one, depth + 1))];
    if (Object.getPrototypeOf(value) !== Object.prototype) throw new Error("not to be carried");
    return ["o", Object.entries(value).map(([name, one]) => [name, cloned(one, depth + 1)])];
  };
  const of = (request) => new Promise((done, failed) => {
    request.onsuccess = () => done(request.result);
    request.onerror = () => failed(request.error);
  });
  const read = async ({ name, version }) => {
    const opened = await of(indexedDB.open(name));
    try {
      const stores = [];
      for (const storeName of opened.objectStoreNames) {
        const store = opened.transaction(storeName).objectStore(storeName);
        const [keys, values] = await Promise.all([of(store.getAllKeys(null, 501)), of(store.getAll(null, 501))]);
        if (keys.length > 500) throw new Error("too many rows");
        const indexes = [...store.indexNames].map((one) => store.index(one)).map(({ name, keyPath, unique, multiEntry }) => ({ name, keyPath, unique, multiEntry }));
        stores.push({ name: storeName, keyPath: store.keyPath, autoIncrement: store.autoIncrement, indexes, rows: keys.map((key, at) => [cloned(key), cloned(values[at])]) });
      }
      return { name, version, stores };
    } finally {
      opened.close();
    }
  };
  const late = new Promise((done) => setTimeout(() => done([]), 2000));
  const databases = async () => {
    const found = await indexedDB.databases();
    const readOnes = (await Promise.allSettled(found.slice(0, 10).map(read))).flatMap((one) => (one.status === "fulfilled" ? [one.value] : []));
    return { count: found.length, read: readOnes };
  };
  const { count, read: kept } = (await Promise.race([databases().catch(() => []), late])) ?? {};
  return { origin: location.origin, local: all(localStorage), session: all(sessionStorage), count: count ?? 0, databases: kept ?? [] };
})()`;

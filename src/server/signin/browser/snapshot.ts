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

/** What the page's origin keeps besides cookies, and how many IndexedDB databases, which are not handed over. */
export const STORAGE = `(() => {
  const all = (storage) => { try { return Object.entries(storage).map(([k, v]) => [k, String(v)]); } catch { return []; } };
  const databases = indexedDB.databases().then((found) => found.length, () => 0);
  return databases.then((count) => ({ origin: location.origin, local: all(localStorage), session: all(sessionStorage), databases: count }));
})()`;

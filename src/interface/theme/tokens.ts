/** Galtry's colours, type and measures as CSS: a key cabinet in a museum's office. Shared with Lanyard. */

export const TOKENS = `
:root {
  color-scheme: light dark;
  --paper: light-dark(#f3f4ee, #121613);
  --sheet: light-dark(#fcfcf9, #1b201d);
  --pick: light-dark(#dce8df, #20362b);
  --lit: light-dark(#eaede4, #232a26);
  --rule: light-dark(#d6dacf, #2f3832);
  --edge: light-dark(#7b857e, #758279);
  --ink: light-dark(#1e2420, #e7ebe4);
  --soft: light-dark(#566059, #a4afa7);
  --baize: light-dark(#22382e, #1e3328);
  --baize-ink: light-dark(#eff4ec, #e6efe7);
  --baize-soft: light-dark(#b9c9be, #a9bbaf);
  --baize-edge: light-dark(#7e9687, #71897b);
  --baize-copper: #e39a62;
  --on-baize-copper: #1f1206;
  --copper: light-dark(#8f4518, #e39a62);
  --on-copper: light-dark(#fffaf4, #1f1206);
  --moss: light-dark(#3f6328, #a3c585);
  --moss-wash: light-dark(#e3ecd9, #1f2c1b);
  --amber: light-dark(#755000, #d8b872);
  --amber-wash: light-dark(#f4e9c9, #2d2716);
  --crimson: light-dark(#9e1b2f, #f2949c);
  --crimson-wash: light-dark(#f6e0df, #381f22);
  --stamp-1: light-dark(#2f5583, #9dbde2);
  --stamp-2: light-dark(#6d3a66, #d4a5cd);
  --stamp-3: light-dark(#1d625d, #8cc9c2);
  --stamp-4: light-dark(#535c1c, #bfc77f);
  --stamp-5: light-dark(#4a555d, #b0bcc4);
  --stamp-6: light-dark(#8a2b46, #eaa3b6);
  --stamp-7: light-dark(#6f5214, #d3b775);
  --stamp-8: light-dark(#34613f, #97c7a1);
  --gutter: 32px;
  --corner: 6px;
  --control: 32px;
  --bar: 0px;
  --shade: 0 8px 28px light-dark(#1e242033, #000000a0);
  --text: "Atkinson Next", system-ui, sans-serif;
  --mono: "Atkinson Mono", ui-monospace, monospace;
  --title: "Bitter", Georgia, serif;
}
:root[data-theme="light"] { color-scheme: light; }
:root[data-theme="dark"] { color-scheme: dark; }
`;

/** Of those that every page shows; Latin letters beyond the West European ones come when there are some. */
export const FONT_FILES = [
  "atkinson-hyperlegible-next-latin-wght-normal.woff2",
  "atkinson-hyperlegible-mono-latin-wght-normal.woff2",
  "bitter-latin-wght-normal.woff2",
];

/**
 * @param folder where the font files are served from
 * @param display whether text that stands there already may change its font, and so its size
 */
export const fontFaces = (folder: string, display: "swap" | "optional"): string => `
@font-face { font-family: "Atkinson Next"; src: url(${folder}/atkinson-hyperlegible-next-latin-wght-normal.woff2) format("woff2"); font-weight: 200 800; font-display: ${display}; unicode-range: U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215; }
@font-face { font-family: "Atkinson Next"; src: url(${folder}/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2) format("woff2"); font-weight: 200 800; font-display: ${display}; unicode-range: U+0100-0130, U+0132-0151, U+0154-02BA, U+1E00-1EFF; }
@font-face { font-family: "Atkinson Mono"; src: url(${folder}/atkinson-hyperlegible-mono-latin-wght-normal.woff2) format("woff2"); font-weight: 200 800; font-display: ${display}; }
@font-face { font-family: "Bitter"; src: url(${folder}/bitter-latin-wght-normal.woff2) format("woff2"); font-weight: 100 900; font-display: ${display}; }
`;

export const BASE = `
*, ::before, ::after { box-sizing: border-box; }
/* A page that comes in pieces moves nothing sideways when it becomes longer than the window. */
html { overflow-y: scroll; }
body { overflow-wrap: break-word; }
body, h1, h2, h3, p, ul, ol, dl, dd, figure, fieldset { margin: 0; padding: 0; }
fieldset { border: 0; min-width: 0; }
ul, ol { list-style: none; }
body { background: var(--paper); color: var(--ink); font: 400 15px/22px var(--text); --ground: var(--paper); }
h1 { font: 650 26px/32px var(--title); letter-spacing: -0.01em; overflow-wrap: anywhere; }
h2 { font: 650 18px/24px var(--text); }
h3 { font: 650 15px/20px var(--text); }
b, th, strong { font-weight: 650; }
a { color: inherit; text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
a:hover { text-decoration: underline 2px currentColor; }
button, input, select, textarea { font: inherit; color: inherit; }
:focus-visible { outline: 2px solid var(--copper); outline-offset: 2px; }
.on-baize :focus-visible { outline-color: var(--baize-copper); }
.mono { font-family: var(--mono); font-size: 14px; letter-spacing: -0.01em; }
.soft { color: var(--soft); }
.small { font-size: 13.5px; line-height: 20px; }
.unseen { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
svg.icon { flex: none; vertical-align: -3px; }
@media (max-width: 719px) { :root { --gutter: 16px; --control: 40px; --bar: 53px; } }
@media (max-width: 719px) and (max-height: 500px) { :root { --bar: 0px; } }
`;

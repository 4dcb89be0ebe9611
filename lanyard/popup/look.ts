/** How Lanyard's window looks: one key tag inside the cabinet. */
import { BASE, fontFaces, TOKENS } from "../../src/interface/theme/tokens";

export const POPUP_CSS = `${fontFaces("fonts", "swap")}${TOKENS}${BASE}
html { background: var(--baize); }
body { width: 384px; min-height: 240px; margin: 0 auto; background: var(--baize); color: var(--baize-ink); padding: 0 10px 12px; }
.bar { display: flex; justify-content: space-between; align-items: center; gap: 12px; height: 46px; padding: 0 10px; font-size: 14px; }
.bar a.small { margin-right: auto; }
.bar button { max-width: 44%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.bar a, .bar button { color: inherit; text-decoration-color: var(--baize-edge); }
.wordmark { font: 700 18px/24px var(--title); text-decoration: none; }
.quiet { padding: 4px 0; border: 0; background: none; font: 600 14px/20px var(--text); text-decoration: underline 1px var(--edge); text-underline-offset: 3px; cursor: pointer; }
.tag { position: relative; color: var(--ink); }
.face { padding: 38px 20px 16px; background: var(--sheet); --ground: var(--sheet); clip-path: polygon(14px 0, calc(100% - 14px) 0, 100% 14px, 100% 100%, 0 100%, 0 14px); mask: radial-gradient(circle at 50% 20px, #0000 7px, #000 7.7px); }
.face :focus-visible { outline-color: var(--copper); }
.ring { position: absolute; left: calc(50% - 11px); top: 9px; width: 22px; height: 22px; border: 2px solid var(--edge); border-radius: 50%; }
.cord { position: absolute; left: calc(50% - 5px); bottom: calc(100% - 20px); width: 10px; height: 66px; border-radius: 0 0 4px 4px; background: repeating-linear-gradient(135deg, #ffffff2e 0 2px, #0000 2px 5px), color-mix(in srgb, var(--baize) 55%, #000); }
h2 { font-size: 15px; line-height: 22px; overflow-wrap: anywhere; }
h3 { font-size: 20px; line-height: 26px; overflow-wrap: anywhere; }
.lead { font: 650 17px/24px var(--text); margin-bottom: 6px; overflow-wrap: anywhere; }
.bad { color: var(--crimson); }
p + p { margin-top: 8px; }
.first { padding: 12px 0 16px; }
.first .btn { width: 100%; margin-top: 12px; }
.it { display: flex; gap: 12px; align-items: center; }
.line { display: grid; grid-template-columns: 36px minmax(0, 1fr) auto; gap: 12px; align-items: center; min-height: 48px; padding: 5px 0; border-top: 1px solid var(--rule); line-height: 19px; }
.line b { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 15px; }
.ruled { border-top: 1px solid var(--rule); padding-top: 10px; margin-top: 4px; }
.btn { display: inline-flex; align-items: center; justify-content: center; min-height: 34px; padding: 4px 12px; border: 1px solid var(--edge); border-radius: 6px; background: var(--sheet); color: var(--ink); font: 650 14px/20px var(--text); cursor: pointer; }
.btn:hover { border-color: var(--ink); }
.btn.go { background: var(--copper); border-color: var(--copper); color: var(--on-copper); }
.btn.big { min-height: 48px; font-size: 17px; }
.field { width: 100%; height: 36px; padding: 0 12px; border: 1px solid var(--edge); border-radius: 6px; background: var(--sheet); color: var(--ink); margin: 4px 0 8px; }
.tick { display: flex; gap: 8px; align-items: flex-start; margin-top: 10px; }
.tick input { margin-top: 3px; accent-color: var(--copper); }
.asked { margin-bottom: 16px; padding-bottom: 16px; border-bottom: 1px solid var(--edge); }
.asked + .ruled { margin-top: 0; padding-top: 0; border-top: 0; }
.do { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; margin-top: 14px; }
.do .quiet { margin-left: auto; }
[role=status]:empty { display: none; }
.do + [role=status] { margin-top: 8px; }
.created { margin: 8px 0 2px; font: 600 17px/26px var(--mono); overflow-wrap: anywhere; user-select: all; }
.pair { margin: 8px 0; font: 600 26px/36px var(--mono); letter-spacing: .08em; }
.stamp { flex: none; display: grid; place-items: center; width: 36px; height: 24px; border: 1.5px solid var(--s); border-radius: 50%; color: var(--s); font: 700 11.5px/1 var(--text); box-shadow: inset 0 0 0 1.5px var(--ground), inset 0 0 0 2.3px color-mix(in srgb, var(--s) 50%, transparent); }
.stamp.large { width: 60px; height: 40px; font-size: 18px; }
.hosts { display: grid; grid-template-columns: auto 1fr; gap: 2px 12px; margin: 8px 0; font: 500 15px/22px var(--mono); }
.hosts dt { font: 13.5px/22px var(--text); color: var(--soft); }
.hosts dd { overflow-wrap: anywhere; }
.steps li { padding: 4px 0; border-top: 1px solid var(--rule); color: var(--soft); }
.steps li:last-child { color: var(--ink); font-weight: 650; }
`;

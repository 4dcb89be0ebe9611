import { siteOf } from "../../src/core/signin/site";

const squashed = (text: string) =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, "");

/**
 * A name to begin with: the part of the page's title that the host is named after ("Pellam Tickets: sign in" at
 * pellam.example → "Pellam Tickets"), else the host's own ("Pellam"). A title is the site's word and may say anything;
 * what has nothing to do with the host is not taken.
 */
export function nameFor(page: string, title: string): string {
  const host = (siteOf(new URL(page).hostname).split(".")[0] ?? "").replace(/-/g, " ");
  const label = squashed(host);
  const parts = title
    .slice(0, 300)
    .split(/\s[-–—|·•»«/]\s|\s*[:|·•»«]\s+/)
    .map((part) => part.replace(/\s+/g, " ").trim())
    .filter((part) => part.length <= 60 && part.split(" ").length <= 5);
  const meant = parts.find((part) => {
    const said = squashed(part);
    const first = squashed(part.split(" ")[0]!);
    return (
      said.length >= 3 &&
      (said.includes(label) || label.includes(said) || (first.length >= 4 && label.startsWith(first)))
    );
  });
  return meant ?? host.charAt(0).toUpperCase() + host.slice(1);
}

/**
 * Where a link leads within Galtry, as a browser would read it (URL Living Standard: tabs and line ends are left out,
 * a backslash is a slash), so that nobody is led elsewhere by an address that only begins like one of Galtry's own.
 * @param address as it was handed in: a path, or a whole address
 * @param home Galtry's public address
 * @returns path, query and fragment; "/" for anything that is not Galtry's own
 */
export function ownAddress(address: unknown, home: URL): string {
  if (typeof address !== "string") return "/";
  try {
    const { origin, pathname, search, hash } = new URL(address, home);
    // A path that begins with two slashes is another host's address to whoever reads it next.
    return origin === home.origin && !pathname.startsWith("//") ? `${pathname}${search}${hash}` : "/";
  } catch {
    return "/";
  }
}

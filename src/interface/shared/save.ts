/** Offers a file to be saved: under no type that a browser would run, whatever is in it. */
export function save(file: Blob, name: string): void {
  const address = URL.createObjectURL(new Blob([file], { type: "application/octet-stream" }));
  const link = document.createElement("a");
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 60_000);
}

/** What something is called, as the name of a file. */
export const fileName = (what: string): string =>
  what
    .normalize("NFKD")
    .replace(/[^\p{L}\p{N}]+/gu, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60)
    .toLowerCase() || "galtry";

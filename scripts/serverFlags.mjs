/**
 * What Node is told when it runs the server. A young generation that does not grow keeps the process a third smaller, and
 * it answers as many; the old one has four times what the largest organisation that was measured needs. An operator says
 * otherwise with NODE_OPTIONS.
 */
export const SERVER_FLAGS = (process.env.NODE_OPTIONS ?? "").includes("--max-")
  ? []
  : ["--max-semi-space-size=8", "--max-old-space-size=1024"];

/** Where the file of a thread or a process lies: in the sources beside whoever starts it, or built, all in one folder. */

/** The server is built (scripts/server.ts): it and its threads are plain JavaScript. */
const isBuilt = (here: string): boolean => here.endsWith(".js");

/**
 * @param name such as `read.worker.ts`
 * @param here `import.meta.url` of whoever starts it
 */
export const besideThis = (name: string, here: string): URL =>
  new URL(isBuilt(here) ? name.replace(/\.ts$/, ".js") : name, here);

/** What Node is told for a process that runs such a file. */
export const howToRun = (file: URL): string[] => (isBuilt(file.href) ? [] : ["--import", "tsx"]);

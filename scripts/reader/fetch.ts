/** npm run reader:fetch -- FOLDER: fetches the packages that hold foreign pages, with npm and apt, and unpacks them there. */
import { execFileSync } from "node:child_process";
import { existsSync, mkdirSync, readdirSync } from "node:fs";
import { join, resolve } from "node:path";
import { DEBIAN_PACKAGES, NPM_PACKAGES } from "./sources";

const folder = resolve(process.argv[2] ?? "reader-pages");
const run = (program: string, args: string[], cwd: string) => execFileSync(program, args, { cwd, stdio: "pipe" });

for (const name of [...NPM_PACKAGES, ...DEBIAN_PACKAGES]) {
  const into = join(folder, name.replace(/[@/]/g, "_"));
  if (existsSync(into)) continue;
  mkdirSync(into, { recursive: true });
  try {
    if ((NPM_PACKAGES as readonly string[]).includes(name)) run("npm", ["pack", "--silent", name], into);
    else run("apt-get", ["download", name], into);
    for (const file of readdirSync(into)) {
      if (file.endsWith(".tgz")) run("tar", ["xzf", file], into);
      if (file.endsWith(".deb")) run("dpkg", ["-x", file, "."], into);
    }
    console.log(`${name} fetched`);
  } catch (error) {
    console.log(`${name} cannot be fetched: ${error instanceof Error ? error.message.split("\n")[0] : error}`);
  }
}

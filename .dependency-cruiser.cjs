/** Imports run downward only. */
const none = (name, comment, from, to) => ({
  name,
  comment,
  severity: "error",
  from: { path: from },
  to: { path: to },
});

module.exports = {
  forbidden: [
    none(
      "core-is-alone",
      "core is computation only",
      "^src/core",
      "^(src/(server|interface|app)|lanyard|standins|demo)",
    ),
    {
      name: "core-without-platform",
      comment: "core runs in Node, the browser, a worker and Lanyard",
      severity: "error",
      from: { path: "^src/core", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    none(
      "core-without-frameworks",
      "no interface or database in core",
      "^src/core",
      "node_modules/(react|next|drizzle-orm|@libsql|styled-components)",
    ),
    none("server-below-interface", "the server draws nothing", "^src/server", "^(src/(interface|app)|lanyard)"),
    {
      name: "interface-without-server-code",
      comment: "the interface takes types from the server, never code",
      severity: "error",
      from: { path: "^src/interface" },
      to: { path: "^src/server", dependencyTypesNot: ["type-only"] },
    },
    none("interface-below-app", "the interface knows no routes", "^src/interface", "^src/app"),
    {
      name: "lanyard-without-server-code",
      comment: "Lanyard takes types from the server, never code",
      severity: "error",
      from: { path: "^lanyard" },
      to: { path: "^src/(server|app)", dependencyTypesNot: ["type-only"] },
    },
    none(
      "nothing-needs-the-sample",
      "product code never imports the sample or the stand-ins",
      "^src",
      "^(demo|standins|e2e)",
    ),
    {
      name: "only-the-server-keeps",
      comment: "database and keys are the server's",
      severity: "error",
      from: { path: "^src/(core|interface|app)" },
      to: { path: "src/server/(database/client|keys)", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "no-circles",
      severity: "error",
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ["type-only"] } },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: "specify",
    tsConfig: { fileName: "tsconfig.json" },
    exclude: { path: "^(dist|\\.next)" },
  },
};

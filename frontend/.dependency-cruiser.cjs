/** No circles among the sources, type-only imports included; a station is reached through its public face, and shared knows no station. */
module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    { name: "shared-knows-no-station", severity: "error", from: { path: "^src/shared" }, to: { path: "^src/(stations|app)" } },
    {
      name: "stations-by-their-face",
      severity: "error",
      from: { path: "^src/stations/([^/]+)/" },
      to: { path: "^src/stations/", pathNot: ["^src/stations/$1/", "^src/stations/[^/]+/index\\.ts$"] },
    },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: "tsconfig.json" }, doNotFollow: { path: "node_modules" } },
};

import type { NextConfig } from "next";

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  compiler: { styledComponents: true },
  // Native add-ons and libraries that read files beside themselves stay outside the bundle.
  serverExternalPackages: [
    "@libsql/client",
    "libsql",
    "@node-rs/argon2",
    "pino",
    "undici",
    "cheerio",
    "iconv-lite",
    "sharp",
    "playwright-core",
  ],
  typescript: { ignoreBuildErrors: true }, // types are checked once, by `npm test`
  devIndicators: false,
  // A look again that is cut short, by leaving the page or by Galtry restarting, must not load the old page again.
  experimental: { useOffline: true },
  // Fonts that are asked for again at each page come too late for its first words.
  headers: async () => [
    { source: "/fonts/:file", headers: [{ key: "cache-control", value: "public, max-age=2592000" }] },
  ],
};

export default config;

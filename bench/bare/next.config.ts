import path from "node:path";
import type { NextConfig } from "next";

const config: NextConfig = {
  compiler: { styledComponents: true },
  typescript: { ignoreBuildErrors: true },
  turbopack: { root: path.resolve(import.meta.dirname, "../..") },
};

export default config;

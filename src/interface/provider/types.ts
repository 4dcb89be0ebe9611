import type { ResultOf } from "@/server/registry";

export type View = ResultOf<"provider.providerList">;
export type Provider = View["providers"][number];

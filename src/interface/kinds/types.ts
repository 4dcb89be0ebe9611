import type { InputOf, ResultOf } from "@/server/registry";

export type KindsView = ResultOf<"vaults.kindList">;
export type DrawnForm = InputOf<"vaults.createKind">["kind"]["fields"][number]["form"];

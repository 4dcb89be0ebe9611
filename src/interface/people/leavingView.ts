import type { ResultOf } from "@/server/registry";

export type LeavingView = ResultOf<"people.leavingPage">;

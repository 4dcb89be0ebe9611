import type { ResultOf } from "@/server/registry";

export type GroupView = ResultOf<"people.groupPage">;
export type MemberLine = NonNullable<GroupView["members"]>[number];

import type { Ending } from "@/server/access/endingSoon";
import type { ApprovalToGive } from "@/server/access/requests/approvals";
import type { ShownSlip } from "@/server/access/slip/secondOpinions";
import type { ResultOf } from "@/server/registry";

export type Asks = ResultOf<"access.requestList">;

export type Slips = ResultOf<"access.waitingSlips">;

/** All that waits for the reader, or that they wait for. */
export interface Waiting {
  asks: Asks;
  slips: Slips;
  approvals: ApprovalToGive[];
  rounds: { id: string; name: string; askedAt: number }[];
  shown: ShownSlip[];
  ending: Ending[];
  /** Findings where the reader is steward. */
  upkeep: ResultOf<"upkeep.upkeepToday">;
}

export interface SideProps {
  waiting: Waiting;
  zone: string;
  now: number;
  me: string;
}

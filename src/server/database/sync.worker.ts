/** Keeps a replica's file up to its primary, in a thread: libSQL waits for the network on the thread that asks. */
import { type Client, createClient } from "@libsql/client";
import { answerAsks, stopAnswering } from "../workerThread";
import { CLOSE, type SyncAsk } from "./replica";

let client: Client | null = null;
let last = -1;

answerAsks<SyncAsk, boolean>(async (ask) => {
  if (ask === CLOSE) {
    client?.close();
    client = null;
    stopAnswering();
    return false;
  }
  if (typeof ask === "object") client = createClient(ask);
  const done = await client!.sync();
  if (!done) return false;
  const { frame_no: frame, frames_synced: synced } = done;
  // More than what is new: another log, from its beginning.
  const anew = last >= 0 && (frame < last || synced > frame - last);
  last = frame;
  return anew;
});

/** Runs queries by name, on a connection of its own that only reads. */
import { LiveAccess } from "../access/liveAccess";
import { databaseFile, isLocal } from "../configuration";
import { connect, connectReader } from "../database/client";
import type { Galtry } from "../galtry";
import { Refused } from "../refused";
import { registry } from "../registry";
import { answerAsks, stopAnswering } from "../workerThread";
import { CLOSE, type Opening, type Reading, type ReadingAsk, type ReadingMessage } from "./readingThread";

let app: Galtry | null = null;
let renewals = 0;

function open({ configuration, keys, process, replica }: Opening): void {
  const file = replica ?? (isLocal(configuration) ? databaseFile(configuration) : null);
  const opened = file
    ? connectReader(file, keys.database)
    : connect(configuration.databaseUrl, keys.database, configuration.databaseToken);
  app = {
    configuration: { ...configuration, publicUrl: new URL(configuration.publicUrl) },
    keys,
    opened: { ...opened, local: isLocal(configuration) },
    db: opened.db,
    reader: opened.client,
    access: new LiveAccess(opened.db, () => renewals),
    process,
    get writer(): never {
      throw new Error("Nothing is written by the thread that reads.");
    },
  };
}

async function read({ name, input, caller, at }: ReadingAsk): Promise<Reading> {
  const found = registry.get(name);
  if (found?.type !== "query" || !app) throw new Error(`no query ${name}`);
  try {
    return { result: await found.execute(app, input, caller, at) };
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    const { code, message, field, data } = error;
    return { refused: { code, message, field, data } };
  }
}

answerAsks<ReadingMessage, Reading | null>(async (ask) => {
  if (ask === CLOSE) {
    app?.opened.client.close();
    app = null;
    stopAnswering();
    return null;
  }
  if ("name" in ask) {
    renewals = ask.renewals ?? 0;
    return read(ask);
  }
  open(ask);
  return null;
});

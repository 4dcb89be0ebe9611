/** Files that go up and come down piece by piece, as a browser sends and fetches them. */
import type { Fixture } from "../demo/fixture";
import { PIECE_BYTES } from "../src/core/pieces";
import type { Galtry } from "../src/server/galtry";
import {
  addPiece,
  attachmentPiece,
  beginAttachment,
  finishAttachment,
  openAttachment,
} from "../src/server/vaults/attachments";

type Person = ReturnType<Fixture["as"]>;

export async function attachFile(
  app: Galtry,
  entryId: string,
  name: string,
  content: Buffer,
  as: Person,
): Promise<string> {
  const { attachmentId, pieces } = await beginAttachment.execute(app, { entryId, name, size: content.length }, as);
  for (let number = 0; number < pieces; number++) {
    const piece = content.subarray(number * PIECE_BYTES, (number + 1) * PIECE_BYTES).toString("base64");
    await addPiece.execute(app, { attachmentId, number, piece }, as);
  }
  await finishAttachment.execute(app, { attachmentId }, as);
  return attachmentId;
}

export async function fetchFile(app: Galtry, attachmentId: string, as: Person): Promise<Buffer> {
  const { ticket, pieces } = await openAttachment.execute(app, { attachmentId, how: "opened" }, as);
  const parts: Buffer[] = [];
  for (let number = 0; number < pieces; number++) {
    const { piece } = await attachmentPiece.execute(app, { attachmentId, number, ticket }, as);
    parts.push(Buffer.from(piece, "base64"));
  }
  return Buffer.concat(parts);
}

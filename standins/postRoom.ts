/** A post room: takes every mail that is sent to it over SMTP and shows what was sent. Nothing leaves it. */
import type { AddressInfo } from "node:net";
import type { Router } from "express";
import PostalMime from "postal-mime";
import { SMTPServer } from "smtp-server";
import { page, router } from "./sites/site";

export const POST_ROOM = "post.localhost";

export interface Letter {
  /** As the envelope says. */
  to: string[];
  from: string;
  subject: string;
  text: string;
  at: Date;
}

export interface PostRoom {
  /** As GALTRY_MAIL_SERVER. */
  address: string;
  /** The latest last. */
  letters: Letter[];
  /** While set, every letter is turned away with these words. */
  closed: string | null;
  /** And with this reply code: 4xx for now, 5xx for good. */
  code: number;
  pages: Router;
  close: () => Promise<void>;
}

const MOST_KEPT = 200;

/** @param port 0 for any that is free */
export async function startPostRoom(port = 0): Promise<PostRoom> {
  const letters: Letter[] = [];
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ["STARTTLS", "AUTH"],
    size: 1024 * 1024,
    onData(stream, session, done) {
      const parts: Buffer[] = [];
      stream.on("data", (part: Buffer) => parts.push(part));
      stream.on("end", async () => {
        if (room.closed) return done(Object.assign(new Error(room.closed), { responseCode: room.code }));
        const read = await PostalMime.parse(Buffer.concat(parts));
        letters.push({
          to: session.envelope.rcptTo.map(({ address }) => address),
          from: read.from?.address ?? "",
          subject: read.subject ?? "",
          text: read.text ?? "",
          at: new Date(),
        });
        letters.splice(0, Math.max(0, letters.length - MOST_KEPT));
        done();
      });
    },
  });
  // A client that goes away in the middle is no matter of ours.
  server.on("error", () => undefined);
  await new Promise<void>((ready) => server.listen(port, "127.0.0.1", ready));
  const room: PostRoom = {
    address: `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}`,
    letters,
    closed: null,
    code: 451,
    pages: pagesOf(letters),
    close: () => new Promise((closed) => server.close(() => closed())),
  };
  return room;
}

const ESCAPED: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const plain = (text: string) => text.replace(/[&<>"]/g, (one) => ESCAPED[one]!);

function pagesOf(letters: readonly Letter[]): Router {
  const pages = router();
  pages.get("/", (_request, response) => {
    const list = [...letters]
      .reverse()
      .map(
        (one) =>
          `<article><h2>${plain(one.subject)}</h2><p>to ${plain(one.to.join(", "))}, ${one.at.toLocaleTimeString("en-GB")}</p><pre style="white-space:pre-wrap">${plain(one.text)}</pre></article><hr>`,
      )
      .join("");
    response.send(
      page(
        "Post room",
        `<h1>Post room</h1>${list || "<p>Nothing has been sent yet.</p>"}`,
        '<meta http-equiv="refresh" content="5">',
      ),
    );
  });
  return pages;
}

/**
 * The browser's only way out: a proxy on this machine, for who knows its one-time secret, that lets through what the
 * guarded client would. Names are resolved here and the connection is made to the very address that was checked.
 */
import { randomBytes, timingSafeEqual } from "node:crypto";
import { createServer, request as forward, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import { type AddressInfo, connect, type LookupFunction, type Socket } from "node:net";
import type { Duplex } from "node:stream";
import type { Guard } from "../guardedClient";

/** More than the pages of a sign-in weigh, with all that they load. */
const MOST_BYTES = 60 * 1024 * 1024;
const MOST_CONNECTIONS = 64;
const IDLE_MS = 20_000;

export class BrowserProxy {
  readonly secret = randomBytes(24).toString("base64url");
  /** Addresses that were asked for and refused, by origin. */
  readonly refused = new Set<string>();
  readonly #server: Server;
  readonly #sockets = new Set<Socket | Duplex>();
  #left = MOST_BYTES;

  private constructor(private readonly guard: Guard) {
    this.#server = createServer((request, response) => this.#forward(request, response));
    this.#server.on("connect", (request, socket, head) => this.#tunnel(request, socket, head));
    this.#server.on("connection", (socket) => this.#hold(socket));
    this.#server.maxConnections = MOST_CONNECTIONS;
  }

  static async open(guard: Guard): Promise<BrowserProxy> {
    const proxy = new BrowserProxy(guard);
    await new Promise<void>((done, failed) => {
      proxy.#server.once("error", failed).listen(0, "127.0.0.1", done);
    });
    return proxy;
  }

  get port(): number {
    return (this.#server.address() as AddressInfo).port;
  }

  /** Ends every connection: what was opened for reading is not there any more when a secret is typed. */
  cut(): void {
    for (const socket of this.#sockets) socket.destroy();
  }

  close(): void {
    this.cut();
    this.#server.close();
  }

  #hold(socket: Socket | Duplex): void {
    this.#sockets.add(socket);
    socket.on("close", () => this.#sockets.delete(socket));
    socket.on("error", () => socket.destroy());
  }

  /** What comes in counts, in all connections together. */
  #count(socket: Socket): void {
    socket.on("data", (part: Buffer) => {
      this.#left -= part.length;
      if (this.#left < 0) this.cut();
    });
  }

  #knows(request: IncomingMessage): boolean {
    const given = Buffer.from(/^Basic (.+)$/i.exec(request.headers["proxy-authorization"] ?? "")?.[1] ?? "", "base64");
    const wanted = Buffer.from(`galtry:${this.secret}`);
    return given.length === wanted.length && timingSafeEqual(given, wanted);
  }

  #checked(address: string): URL | null {
    try {
      return this.guard.check(address);
    } catch {
      if (URL.canParse(address)) this.refused.add(new URL(address).origin);
      return null;
    }
  }

  readonly #lookup = (port: number): LookupFunction =>
    ((hostname, _options, found) =>
      this.guard.lookup(hostname, port, (error, addresses) => {
        // Node asks for one address or for all, as it likes: it gets the first that was checked.
        const first = addresses[0];
        if (error || !first) found(error ?? new Error("no address"), "", 4);
        else if (_options.all) found(null, addresses);
        else found(null, first.address, first.family);
      })) as LookupFunction;

  #forward(request: IncomingMessage, response: ServerResponse): void {
    if (!this.#knows(request)) return void deny(response, 407);
    const url = this.#checked(request.url ?? "");
    if (url?.protocol !== "http:") return void deny(response, 403);
    const headers = { ...request.headers };
    for (const name of ["proxy-authorization", "proxy-connection", "connection"]) delete headers[name];
    const outgoing = forward(
      url,
      { method: request.method, headers, lookup: this.#lookup(Number(url.port || 80)), agent: false, timeout: IDLE_MS },
      (answer) => {
        response.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(response);
      },
    );
    outgoing.on("socket", (socket) => {
      this.#hold(socket);
      this.#count(socket);
    });
    outgoing.on("timeout", () => outgoing.destroy());
    outgoing.on("error", () => deny(response, 502));
    request.pipe(outgoing);
  }

  #tunnel(request: IncomingMessage, client: Duplex, head: Buffer): void {
    this.#hold(client);
    const refuse = (status: string) => client.end(`HTTP/1.1 ${status}\r\nContent-Length: 0\r\n\r\n`);
    if (!this.#knows(request))
      return void refuse('407 Proxy Authentication Required\r\nProxy-Authenticate: Basic realm="galtry"');
    const url = this.#checked(`https://${request.url ?? ""}/`);
    if (!url) return void refuse("403 Forbidden");
    const port = Number(url.port || 443);
    const site = connect({
      host: url.hostname.replace(/^\[|\]$/g, ""),
      port,
      lookup: this.#lookup(port),
      timeout: IDLE_MS,
    });
    this.#hold(site);
    this.#count(site);
    site.on("timeout", () => site.destroy());
    site.on("error", () => client.destroy());
    site.on("close", () => client.destroy());
    client.on("close", () => site.destroy());
    site.on("connect", () => {
      client.write("HTTP/1.1 200 Connection Established\r\n\r\n");
      site.write(head);
      site.pipe(client);
      client.pipe(site);
    });
  }
}

function deny(response: ServerResponse, status: number): void {
  if (response.headersSent) return void response.destroy();
  response.writeHead(status, status === 407 ? { "proxy-authenticate": 'Basic realm="galtry"' } : {}).end();
}

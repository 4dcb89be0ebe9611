/**
 * What an engine of sealed sign-in is: it takes an opened login and gives back a session or a named failure. The
 * one here speaks plain HTTP; one with a browser of the server's own fits beside it.
 */
import { z } from "zod";
import type { CodeSettings } from "../../core/signin/code";
import type { OnProgress } from "../../core/signin/outcome";
import type { SignInSteps } from "../../core/signin/steps";
import type { TestedPage } from "../../core/signin/testReport";

/** Where Galtry visits by itself: the site sees the server, and no colleague's browser. */
export const SERVER_SEEN_AS = {
  userAgent: "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/120.0.0.0 Safari/537.36",
  acceptLanguage: "en",
};

export interface Login {
  userName: string;
  password: string;
  code: CodeSettings | null;
}

export interface SignInTask {
  signInPage: string;
  /** Opened while the site's first page is on its way. */
  login: Promise<Login>;
  steps: SignInSteps;
  /** Whether an address belongs to the entry or its steps. */
  allows: (address: string) => boolean;
  plainHttp: boolean;
  /** The engine that got in last time; null where none did, or it is not known. */
  worked: EngineName | null;
  /** Of the Lanyard that asks: the site sees the colleague's own browser. */
  userAgent: string;
  acceptLanguage: string;
  signal: AbortSignal;
  onProgress: OnProgress;
  /** Claims a time step of the code; false when it was used already. */
  claimCode: (step: number) => Promise<boolean>;
  /**
   * Asks whoever receives the codes that the site sends; left out where nobody does.
   * @throws SignInFailure code-not-given
   */
  askCode?: () => Promise<string>;
  /** Of a test: each page as it is reached; what is done on it is written into it afterwards. */
  onPage?: (page: TestedPage) => void;
  /** Of a test: the last page as a picture (JPEG), with nothing in it that was typed. */
  onPicture?: (picture: Uint8Array) => void;
}

export interface HandedCookie {
  name: string;
  value: string;
  domain: string;
  hostOnly: boolean;
  path: string;
  secure: boolean;
  httpOnly: boolean;
  sameSite: "no_restriction" | "lax" | "strict" | "unspecified";
  /** Seconds since 1970; null for a session cookie. */
  expires: number | null;
}

/** What a site keeps in the browser besides cookies, of one origin; keys and values as they are. */
export interface HandedStorage {
  origin: string;
  local: [string, string][];
  session: [string, string][];
  databases: HandedDatabase[];
}

/**
 * A value of IndexedDB as JSON can carry it: `v` as it is, `u` undefined, `d` a date in milliseconds, `b` bytes in base64
 * (an ArrayBuffer or its view), `a` a list, `o` an object. What is none of these is not handed over.
 */
export type Cloned =
  | ["v", string | number | boolean | null]
  | ["u"]
  | ["d", number]
  | ["b", string, "buffer" | "view"]
  | ["a", Cloned[]]
  | ["o", [string, Cloned][]];

const cloned: z.ZodType<Cloned> = z.lazy(() =>
  z.union([
    z.tuple([z.literal("v"), z.union([z.string(), z.number(), z.boolean(), z.null()])]),
    z.tuple([z.literal("u")]),
    z.tuple([z.literal("d"), z.number()]),
    z.tuple([z.literal("b"), z.string(), z.enum(["buffer", "view"])]),
    z.tuple([z.literal("a"), z.array(cloned)]),
    z.tuple([z.literal("o"), z.array(z.tuple([z.string(), cloned]))]),
  ]),
);

const keyPath = z.union([z.string(), z.array(z.string())]);

/** One IndexedDB database of an origin, with its stores as they are made and what is in them. */
export const databaseSchema = z.strictObject({
  name: z.string(),
  version: z.number().int().min(1),
  stores: z.array(
    z.strictObject({
      name: z.string(),
      keyPath: keyPath.nullable(),
      autoIncrement: z.boolean(),
      indexes: z.array(z.strictObject({ name: z.string(), keyPath, unique: z.boolean(), multiEntry: z.boolean() })),
      /** Key and value. */
      rows: z.array(z.tuple([cloned, cloned])),
    }),
  ),
});
export type HandedDatabase = z.output<typeof databaseSchema>;

export const ENGINES = ["http", "browser"] as const;
export type EngineName = (typeof ENGINES)[number];

export interface SignedIn {
  /** Which engine got in, where there are several. */
  by?: EngineName;
  cookies: HandedCookie[];
  storage: HandedStorage[];
  landing: string;
}

export interface SignInEngine {
  /** @throws SignInFailure */
  signIn(task: SignInTask): Promise<SignedIn>;
  /**
   * Opens what a session leads to, as the colleague's browser would, and takes its picture.
   * @param session null for the sign-in page, into which nothing is typed
   * @throws SignInFailure session-elsewhere where the site asks to sign in again
   */
  show?(task: SignInTask, session: SignedIn | null): Promise<void>;
}

/** To change a password at its site: signed in first, then on the page that changes it. */
export interface ChangeTask extends SignInTask {
  /** Where it is changed, if that is known. */
  changePage: string | null;
  /** It is in: what fails from now on is no failure to sign in. */
  onSignedIn: () => void;
  /**
   * Makes the new password, and has it written down before anything is sent.
   * @param rules of the page, in the `passwordrules` syntax
   */
  create: (rules: string) => Promise<string>;
  /** It is about to leave: from now on nobody knows which of the two the site takes. */
  onSend: () => Promise<void>;
}

/** What the site's answer says, which is not yet believed. */
export interface ChangeSent {
  /**
   * `stopped`: the page would have put it into an address, and Galtry let that request go nowhere. `asks-code`: it wants a
   * code that Galtry does not have. `mails`: it has sent a letter, perhaps with a link that has to be followed.
   */
  says: "accepted" | "rejected" | "stopped" | "asks-code" | "mails" | "unclear";
  /** Where it was changed. */
  at: string;
  /** What the page asks of a password now that it has said no; empty otherwise. */
  rules: string;
}

/** Before anything was sent: there is no such page, or it is none that can be filled in without a browser. */
export class ChangeFailure extends Error {
  override name = "ChangeFailure";
  constructor(
    readonly outcome: "no-change-page" | "only-by-hand",
    readonly detail: string,
  ) {
    super(`${outcome}: ${detail}`);
  }
}

export interface ChangeEngine {
  /** @throws SignInFailure where signing in failed, ChangeFailure before anything was sent; anything else after */
  change(task: ChangeTask): Promise<ChangeSent>;
}

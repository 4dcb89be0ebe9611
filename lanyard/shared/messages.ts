/**
 * What the parts of Lanyard say to each other. None of it carries a kept secret, but one that its person copies in the window
 * while they change it by hand.
 */
import type { Progress } from "../../src/core/signin/outcome";
import type { PageKind } from "../../src/core/signin/page";
import type { PageStep } from "../../src/core/signin/steps";
import type { SignInReport } from "../../src/interface/shared/lanyard";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { AskedCode } from "../../src/server/signin/askedCodes";

export type Connection =
  | {
      state: "connected";
      address: string;
      token: string;
      lanyardId: string;
      personId: string;
      person: string;
      organisation: string;
    }
  | { state: "connecting"; address: string; deviceCode: string; userCode: string; until: number }
  | {
      state: "none";
      address: string | null;
      ended: { why: string | null; at: number | null; by: string | null } | null;
    };

/** What the window shows of it: no token, no device code. */
export type ConnectionView =
  | Exclude<Connection, { state: "connected" | "connecting" }>
  | Omit<Extract<Connection, { state: "connected" }>, "token">
  | Omit<Extract<Connection, { state: "connecting" }>, "deviceCode">;

export interface Keys {
  person: string;
  organisation: string;
  keys: KeyLine[];
  mayAdd: { id: string; name: string }[];
  /** The house rules let this person use Lanyard. */
  mayUse: boolean;
  neverOn: string[];
  /** Notices in Galtry that this person has not dismissed. */
  notices: number;
  /** The same, for all people, by the house rules. */
  neverOnForAll: string[];
  /** The house rules let a login be filled in as its page opens, where the person has chosen so. */
  fillsOnOpening: boolean;
  /** Sign-ins that wait for a code which this person receives. */
  codesAsked: AskedCode[];
  /** Base64: what user names are marked with. */
  markKey: string;
  fetchedAt: number;
}

/** A sign-in as the window shows it. */
export interface SigningIn {
  entryId: string;
  name: string;
  site: string;
  steps: Progress[];
  /** Whom it waits for, that they enter a code. */
  waitsFor: { names: string[]; until: number } | null;
  report: SignInReport | null;
  /** Asks first: the site has cookies that Lanyard did not set. */
  asking: boolean;
  /** When it last changed: an old report gives way. */
  at: number;
}

export interface Offer {
  answer: "new" | "changed";
  on: TypedOn;
  name: string;
  site: string;
  userName: string;
  vaults: { id: string; name: string }[];
  entries: { id: string; name: string; versionId: string }[];
}

export interface View {
  connection: ConnectionView;
  /** The one Galtry that this browser's policy lets it be connected to. */
  onlyAddress: string | null;
  reachable: boolean;
  lastReached: number | null;
  keys: Keys | null;
  tab: { id: number; url: string; galtry: string | null } | null;
  forPage: KeyLine[];
  alike: { here: string; kept: KeyLine } | null;
  signing: SigningIn | null;
  chosen: string | null;
  choices: Choices;
  /** A password that is being changed by hand, in the tab of this window. */
  changing: { name: string; filled: boolean } | null;
}

/** What a person has chosen in this browser. */
export interface Choices {
  /** Their logins are shown at a page's field by themselves. */
  atFields: boolean;
  /** Entries that guarded fill fills in as their page opens. */
  onOpening: string[];
}

/** What the page was for into which something was typed. */
export type TypedOn = "sign-in" | "register" | "change-password";

/** Where a new password would go in a page, and what the page says of it. */
export interface NewPasswordPlace {
  on: Exclude<TypedOn, "sign-in"> | null;
  /** In the `passwordrules` syntax; empty where the page says nothing. */
  rules: string;
  fields: number;
}

/** What a page of a site asks for while its password is changed by hand. */
export interface ChangePlace {
  /** In the `passwordrules` syntax; empty where the page says nothing. */
  rules: string;
  current: boolean;
  fresh: boolean;
  /** The host that the form sends to; null where a script sends it. */
  target: string | null;
}

/** How far it is, as the page of its tab shows it. */
export interface ChangingView {
  name: string;
  state:
    | "looking"
    /** The page asks for the current password alone. */
    | "asks-current"
    | "asks-new"
    | "filled"
    /** It was sent, and the page asks once more. */
    | "asks-again"
    | "sent";
}

/** From a page's script to the worker. */
export type PageAsk =
  | {
      ask: "arrived";
      url: string;
      kind: PageKind;
      galtry: string | null /** The same page, looked at once more. */;
      again: boolean;
      /** It says, in a place made for errors, that what was typed is wrong. */
      saysWrong: boolean;
    }
  /** A frame asks to sign in: what was typed in a frame before was not accepted. */
  | { ask: "frame-asks" }
  /** @returns base64 by name */
  | { ask: "fonts" }
  | {
      ask: "typed";
      url: string;
      title: string;
      userName: string;
      password: string;
      choices: Record<string, string>;
      on: TypedOn;
    }
  /** What the page did with it, without a value. */
  | { ask: "step"; step: PageStep }
  /** It asks to sign in: what its scripts send is to be told on this channel, within the page. */
  | { ask: "watch-sends"; channel: string }
  | { ask: "save-steps" }
  | { ask: "stop-learning" }
  /** The same for a password that is changed by hand: `another` in place of a new one that was rejected. @returns Wrong */
  | { ask: "fill-change"; another: boolean }
  | { ask: "end-change"; keep: "new" | "old" | null }
  | { ask: "keep"; name: string; vaultId: string; userName: string }
  | { ask: "update"; entryId: string; versionId: string }
  /** Taken back right after it was added. */
  | { ask: "undo-add"; entryId: string }
  | { ask: "open-entry"; entryId: string }
  | { ask: "not-now" }
  | { ask: "never" }
  | { ask: "open-window"; entryId: string | null }
  /** A press on the tag at its field: the session goes into this tab. @returns HereReport */
  | { ask: "sign-in-here"; entryId: string }
  /** A press on the tag at a field for a new password. @returns CreatedHere */
  | { ask: "create-here" }
  /** The same by guarded fill. @returns HereReport */
  | { ask: "fill-here"; entryId: string };

/** Fields of a page's form, by their names in the autocomplete attribute. */
export interface FormPlace {
  tokens: string[];
}

/** A password that was created for a page, and put there. */
export interface CreatedHere {
  fields: number;
  characters: number;
}

/** How a sign-in ended that was begun at a page's field, in words. */
export interface HereReport {
  outcome: SignInReport["outcome"];
  title: string;
  says: string;
  /** Guarded fill would be the next thing to try, and may be. */
  fills: boolean;
}

/** From Galtry's own page, passed on by the page's script. */
export type GaltryAsk =
  | { ask: "state" }
  | { ask: "test" }
  | { ask: "present-code"; first: boolean }
  | { ask: "confirmed" }
  | { ask: "sign-in"; entryId: string }
  | { ask: "learn"; entryId: string }
  | { ask: "change-by-hand"; entryId: string };

/** What a page shows while Lanyard learns how its entry is signed in to. */
export interface LearningView {
  name: string;
  /** Steps seen; 0 as long as no password was sent. */
  steps: number;
  /** Hosts that its steps go over, and the entry does not know of yet. */
  hosts: string[];
}

/** From Lanyard's window. */
export type WindowAsk =
  /** `tabId`: the page that a window of its own was opened for; otherwise the page in front. */
  | { ask: "view"; tabId: number | null }
  | { ask: "connect"; address: string }
  | { ask: "stop-connecting" }
  | { ask: "open-connect-page" }
  | { ask: "disconnect" }
  | { ask: "try-now" }
  | { ask: "sign-in"; entryId: string; replace: boolean }
  | { ask: "guarded-fill"; entryId: string; tabId: number }
  /** At a site that asks in the browser's own window. */
  | { ask: "answer-basic"; entryId: string }
  | { ask: "new-password-place"; tabId: number }
  | { ask: "fill-new-password"; tabId: number; password: string }
  /** What could go into the form of a page. @returns FormEntry[] */
  | { ask: "entries-for-form"; tabId: number }
  | { ask: "fill-form"; entryId: string; tabId: number }
  | { ask: "ask-for-site"; page: string; why: string }
  /** Taken back: *Never on this site*. */
  | { ask: "offer-again"; site: string }
  | { ask: "close-report" }
  /** The same as on the page's own tag. */
  | { ask: "fill-change"; tabId: number }
  | { ask: "end-change"; keep: "new" | "old" | null; tabId: number }
  /** One of the two passwords of a change by hand. @returns the password, or what was wrong */
  | { ask: "copy-change"; which: "current" | "fresh"; tabId: number }
  | { ask: "choose"; choices: Partial<Choices> }
  /** The code that a site has sent to this person, or that none came. @returns what was wrong */
  | { ask: "give-code"; id: string; code: string | null }
  /** A number that another device shows, to sign in there. */
  | { ask: "type-number"; number: string }
  | { ask: "answer-number"; number: string; approve: boolean; password: string | null };

/** What waits behind a number: where it comes from, and since when. */
export interface Found {
  browser: string;
  address: string;
  since: number;
}

export type LiveAsk =
  | { ask: "live-connection" }
  | { ask: "live-look" }
  | { ask: "live-ended" }
  | { ask: "live-state"; reachable: boolean };

/** What a guarded fill would meet in a page. */
export interface Look {
  kind: PageKind;
  /** The host that the form sends to; null where a script sends it. */
  target: string | null;
}

/** The kinds that are there from the start. Their ids and field ids are kept in entries: they never change. */
import { CODE, type Field, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "./kind";

const signInPage = (more: Partial<Field> = {}): Field => ({
  id: SIGN_IN_PAGE,
  label: "Sign-in page",
  class: "open",
  form: "address",
  hint: "The page with the sign-in form, not the home page",
  ...more,
});
const userName = (label = "User name"): Field => ({ id: USER_NAME, label, class: "identifier", form: "line" });
const password = (label = "Password"): Field => ({ id: PASSWORD, label, class: "secret", form: "password" });
const code: Field = { id: CODE, label: "One-time code", class: "secret", form: "one-time code" };

const open = (id: string, label: string, more: Partial<Field> = {}): Field => ({
  id,
  label,
  class: "open",
  form: "line",
  ...more,
});
const identifier = (id: string, label: string, more: Partial<Field> = {}): Field => ({
  ...open(id, label, more),
  class: "identifier",
});
const secret = (id: string, label: string, more: Partial<Field> = {}): Field => ({
  ...open(id, label, { form: "password", ...more }),
  class: "secret",
});

export const WEBSITE_LOGIN: Kind = {
  id: "website-login",
  name: "Website login",
  purpose: "sign-in",
  fields: [signInPage({ required: true }), userName(), password(), code],
};

export const READY_KINDS: readonly Kind[] = [
  WEBSITE_LOGIN,
  {
    id: "password",
    name: "Password",
    purpose: "sign-in",
    fields: [open("where", "What it opens", { hint: "a program, a computer, a file" }), userName(), password(), code],
  },
  {
    id: "mail-account",
    name: "Email account",
    purpose: "sign-in",
    fields: [
      userName("Email address"),
      password(),
      code,
      signInPage({ label: "Webmail", hint: "where one reads it in a browser; empty where there is none" }),
      open("incoming", "Incoming server", { hint: "name, port, encryption" }),
      open("outgoing", "Outgoing server", { hint: "name, port, encryption" }),
    ],
  },

  {
    id: "door",
    name: "Door or alarm",
    oldAfter: 24,
    purpose: "get-in",
    fields: [
      open("where", "Where"),
      secret("code-to-enter", "Code", { form: "digits" }),
      secret("code-under-duress", "Code under duress", { form: "digits", hint: "opens, and calls for help unseen" }),
      open("keyholder", "Who has the key"),
      open("line", "Alarm centre", { form: "phone" }),
    ],
  },
  {
    id: "safe",
    name: "Safe",
    oldAfter: 24,
    purpose: "get-in",
    fields: [
      open("where", "Where"),
      secret("combination", "Combination"),
      open("opening", "How it opens", { form: "text", hint: "turns, delays, second key" }),
    ],
  },
  {
    id: "till",
    name: "Till",
    purpose: "get-in",
    fields: [
      open("where", "Where"),
      identifier("operator", "Operator number"),
      secret("pin", "PIN", { form: "digits" }),
      secret("manager-pin", "Manager’s PIN", { form: "digits" }),
    ],
  },
  {
    id: "display-case",
    name: "Display case",
    purpose: "get-in",
    fields: [
      open("where", "Where"),
      open("holds", "What it holds"),
      identifier("key-number", "Key number"),
      secret("lock-code", "Lock code"),
    ],
  },
  {
    id: "wifi",
    name: "Wi-Fi",
    oldAfter: 24,
    purpose: "get-in",
    fields: [
      open("network", "Network name", { required: true }),
      open("security", "Security", { form: "choice", choices: ["WPA2 or WPA3", "WEP", "none"] }),
      open("hidden", "Shows itself", { form: "choice", choices: ["yes", "no, it is hidden"] }),
      password(),
    ],
  },

  {
    id: "card",
    name: "Payment card",
    purpose: "pay",
    fields: [
      open("issuer", "Bank"),
      identifier("holder", "Name on the card"),
      secret("number", "Number", { form: "digits", check: "card number", issued: true }),
      identifier("expires", "Expires", { form: "month" }),
      secret("security-code", "Security code", { form: "digits", issued: true }),
      secret("pin", "PIN", { form: "digits" }),
      open("lost", "Reported lost at", { form: "phone" }),
    ],
  },
  {
    id: "bank-account",
    name: "Bank account",
    purpose: "pay",
    fields: [
      open("bank", "Bank"),
      identifier("holder", "Held in the name of"),
      identifier("iban", "IBAN", { check: "IBAN" }),
      identifier("bic", "BIC"),
      identifier("number", "Account number"),
      identifier("sort-code", "Sort code"),
      secret("phone-password", "Telephone password"),
    ],
  },

  {
    id: "identity-paper",
    name: "Identity paper",
    purpose: "prove",
    fields: [
      open("paper", "Paper", { form: "choice", choices: ["Passport", "Identity card", "Driving licence", "Permit"] }),
      identifier("holder", "Holder"),
      secret("number", "Number", { form: "line" }),
      open("country", "Issued by"),
      identifier("issued", "Issued", { form: "date" }),
      identifier("expires", "Expires", { form: "date" }),
    ],
  },
  {
    id: "membership",
    name: "Membership",
    purpose: "prove",
    fields: [
      open("body", "With"),
      identifier("number", "Number"),
      open("expires", "Renewed by", { form: "date" }),
      secret("pin", "PIN", { form: "digits" }),
      open("line", "Telephone", { form: "phone" }),
    ],
  },
  {
    id: "licence",
    name: "Licence",
    purpose: "prove",
    fields: [
      open("product", "For"),
      open("version", "Version"),
      secret("key", "Licence key", { form: "text" }),
      identifier("registered-to", "Registered to"),
      open("seats", "Seats"),
      open("expires", "Ends", { form: "date" }),
      open("supplier", "Bought from"),
    ],
  },
  {
    id: "postal-address",
    name: "Postal address",
    purpose: "prove",
    fields: [
      open("addressee", "Addressee"),
      open("lines", "Address", { form: "text" }),
      open("postcode", "Postcode"),
      open("town", "Town"),
      open("country", "Country"),
    ],
  },
  {
    id: "contact",
    name: "Contact",
    purpose: "prove",
    fields: [
      open("organisation", "Organisation"),
      open("role", "What they do"),
      open("mail", "Email address", { form: "mail" }),
      open("phone", "Telephone", { form: "phone" }),
      identifier("direct", "Direct line", { form: "phone" }),
      identifier("customer-number", "Our customer number"),
      secret("word", "Word that proves who calls", { form: "line" }),
    ],
  },

  {
    id: "server",
    name: "Server or device",
    oldAfter: 36,
    purpose: "run",
    fields: [
      open("host", "Name or address", { required: true }),
      open("where", "Location"),
      userName(),
      password(),
      code,
      signInPage({ label: "Page to manage it", hint: "empty where there is none" }),
    ],
  },
  {
    id: "database",
    name: "Database",
    oldAfter: 36,
    purpose: "run",
    fields: [
      open("system", "System"),
      open("host", "Server"),
      open("port", "Port", { form: "digits" }),
      open("database", "Database"),
      userName(),
      password(),
    ],
  },
  {
    id: "franking-machine",
    name: "Franking machine",
    purpose: "run",
    fields: [
      open("where", "Where"),
      identifier("serial", "Serial number"),
      identifier("account", "Account number"),
      secret("pin", "PIN", { form: "digits" }),
      open("line", "Helpline", { form: "phone" }),
    ],
  },

  {
    id: "ssh-key",
    name: "SSH key",
    oldAfter: 36,
    purpose: "run",
    fields: [
      open("public-key", "Public key", { form: "text", hint: "goes into authorized_keys on the server" }),
      secret("private-key", "Private key", { form: "text" }),
      secret("passphrase", "Its passphrase, if it has one"),
      open("host", "Server"),
      userName(),
    ],
  },
  {
    id: "document",
    name: "Document",
    purpose: "keep",
    fields: [
      open("about", "What it says", { hint: "the document itself is attached once the entry is made" }),
      open("dated", "Dated", { form: "date" }),
      open("expires", "Valid until", { form: "date" }),
      identifier("number", "Reference"),
    ],
  },
  {
    id: "recovery-codes",
    name: "Recovery codes",
    purpose: "keep",
    fields: [
      open("account", "For which account"),
      secret("codes", "Codes", { form: "codes", hint: "one a line; each is ticked off once it has been used" }),
      open("where", "Printed sheet", { hint: "where it lies, if there is one" }),
    ],
  },
  {
    id: "note",
    name: "Note",
    purpose: "keep",
    fields: [
      secret("text", "Secret text", {
        form: "text",
        hint: "People with Reveal can see it. Use the notes for what anyone with access can read.",
      }),
    ],
  },
];

const BY_ID = new Map(READY_KINDS.map((kind) => [kind.id, kind]));

/** @throws Error for a kind that is not there: entries only ever hold one that was */
export function readyKind(id: string): Kind {
  const kind = BY_ID.get(id);
  if (!kind) throw new Error(`there is no kind ${id}`);
  return kind;
}

export const isReadyKind = (id: string): boolean => BY_ID.has(id);

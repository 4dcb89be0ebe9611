/** Help, in the reader's own role: what each page is for, and what people do there. One place to be read. */

export const READERS = ["guest", "colleague", "steward", "administrator", "auditor"] as const;
export type Reader = (typeof READERS)[number];

/** Of the keys in the list of all. */
export type KeyGroup = "finder" | "ledger" | "grid" | "lanyard";

export interface Topic {
  id: string;
  title: string;
  /** Which pages it is about: the beginning of their address, the longest that fits. */
  at: RegExp | null;
  /** Who has these pages; everyone where nothing is said. */
  for?: readonly Reader[];
  /** What it is for; for some readers in other words. */
  what: string | (Partial<Record<Reader, string>> & { others: string });
  /** What people do there. */
  things: readonly string[];
  keys?: KeyGroup;
  /** What its picture shows, in words: `public/help/ID.webp`, made by `npm run screenshots`. */
  picture?: string;
}

/** The size of every picture, in pixels. */
export const PICTURE = { width: 1000, height: 560 };

/** Readable without signing in. */
export const PUBLIC_TOPICS: readonly Topic[] = [
  {
    id: "get-in",
    title: "Getting in for the first time",
    at: null,
    what: "A colleague adds you, and you get a link by email or from them. It works once, within seven days. Some organisations also let you join with your work email, from the sign-in page.",
    things: [
      "Open the link and choose a sign-in password of at least 15 characters, or a passkey: then there is no password at all.",
      "If your organisation uses single sign-on, press its button on the sign-in page. You need no link and no password.",
      "Has the link expired? Ask an administrator for a new one.",
    ],
  },
  {
    id: "connect-lanyard",
    title: "Connecting Lanyard",
    at: /^\/lanyard/,
    what: "Lanyard is Galtry’s browser extension. It signs you in to sites, and you never need to see a password.",
    picture: "The page “Get Lanyard”, with its three steps.",
    things: [
      "Sign in to Galtry, open “Get Lanyard” from the Front desk, and follow the three steps there.",
      "Press Connect in Lanyard’s window and compare the code that it shows with the code on the page.",
      "Each browser is connected by itself. On a shared computer, disconnect it under your name when you leave.",
    ],
    keys: "lanyard",
  },
  {
    id: "locked-out",
    title: "When you cannot get in",
    at: null,
    what: "There is always a way back in. Which one depends on what you have lost.",
    things: [
      "Forgotten password: if the sign-in page offers “Forgotten your sign-in password?”, you get a link by email. Otherwise an administrator creates a new sign-in link for you.",
      "Lost phone: use one of your recovery codes in place of a one-time code, or another passkey. An administrator can remove what you have lost.",
      "Signed in on another device: choose “Approve on another device” on the sign-in page and enter the number there.",
    ],
  },
];

/** For those who are signed in. */
export const TOPICS: readonly Topic[] = [
  {
    id: "front-desk",
    title: "Front desk",
    at: /^\/$/,
    what: {
      guest: "What you were invited to is here. Type a few letters, press Enter, and you are signed in.",
      auditor: "An auditor signs in to no site. What you read is under Access, People and Journal.",
      administrator:
        "Everything that you yourself can sign in to is here. What waits for your answer is at the right, and so are first steps.",
      others: "Everything you can sign in to is here. Type a few letters, press Enter, and you are signed in.",
    },
    picture:
      "A Front desk: search at the top, below it the entries that were used last, each with its button to sign in.",
    things: [
      "Sign in: choose a line and press Enter. Shift Enter opens the entry in place of the site.",
      "Pin what you use every day: it then stands at the top.",
      "Something is missing: type its name. What you can request is shown below, with its steward.",
    ],
    keys: "finder",
  },
  {
    id: "vaults",
    title: "Vaults",
    at: /^\/vaults$/,
    what: {
      administrator:
        "All vaults are here by name. What is in them, only their people see, and an administrator only with access.",
      others: "The vaults in which you have access to something.",
    },
    things: [
      "Open a vault to see its folders and entries.",
      "Create a vault for each team: the person who creates it is its first steward.",
      "Import what a browser or another program has saved: open the vault and choose Import.",
    ],
  },
  {
    id: "vault",
    title: "A vault",
    at: /^\/vaults\//,
    what: {
      guest: "The folder you were invited to, with its entries.",
      steward: "The entries of one team in their folders. As a steward you also give and end access, and move things.",
      others: "The entries of one team in their folders, as far as you have access.",
    },
    picture: "The vault Shop & Tickets with its folder Suppliers open and two entries selected.",
    things: [
      "Add a login: press N, or sign in to the site as usual and let Lanyard offer to add it.",
      "Select several rows to move, tag or duplicate them, or to give access to all of them at once.",
      "Arrange the ledger: choose columns, sort by a heading, and filter by any words.",
    ],
    keys: "ledger",
  },
  {
    id: "entry",
    title: "An entry",
    at: /^\/entry/,
    what: {
      steward: "One login or other secret: what it holds, who can do what with it, and who has seen it.",
      others: "One login or other secret. With Use you sign in with it; with Reveal you also see its password.",
    },
    picture: "An entry as it looks with Use: a button to sign in, and no password.",
    things: [
      "Sign in: Galtry signs in to the site and hands your browser the session. The password stays in Galtry.",
      "You need more than you have: press “Request more access” and give the reason.",
      "It does not work any more: press “Report a problem”. Its stewards read it at once.",
    ],
  },
  {
    id: "sign-in-steps",
    title: "Sign-in steps",
    at: /^\/entry\/[^/]+\/steps/,
    for: ["steward", "administrator", "colleague"],
    what: "How Galtry signs in to one site: its steps, what the last test found, and what you can do when it fails.",
    things: [
      "Find out whether it works: press “Test”. Galtry signs in once and shows each page; nobody gets the session.",
      "Galtry does not find its way: press “Learn with Lanyard” and sign in by hand once.",
      "Put it right yourself, or say which steward receives the site’s codes: press “Change steps”.",
    ],
  },
  {
    id: "access",
    title: "Access",
    at: /^\/access/,
    for: ["steward", "administrator", "auditor"],
    what: {
      auditor: "Who can do what in each vault, now and at any past date. You see all of it and change nothing.",
      others: "Who can do what: rows are folders and entries, columns are groups and people, and each cell is a level.",
    },
    picture: "The access grid of a vault, with one change drafted and its effects read below.",
    things: [
      "Find out why: choose a cell, and the foot explains it.",
      "Change something: set a level in a cell. It goes on your change slip, which says what it would do. Nothing happens before Apply.",
      "Look back: choose a date to see access as it was. Print it or save it as CSV.",
    ],
    keys: "grid",
  },
  {
    id: "rounds",
    title: "Rounds",
    at: /^\/access\/[^/]+\/rounds/,
    for: ["steward", "administrator", "auditor"],
    what: "A round is a review: its stewards look at who has what, and confirm, lower or end each line.",
    picture: "A round: lines with who has what, three of them answered.",
    things: [
      "Start with what is unusual: it is listed first, with the reason.",
      "Confirm with C, lower with L, end with E. Nothing changes until you finish the round.",
      "Your own access is reviewed by another steward.",
    ],
  },
  {
    id: "upkeep",
    title: "Upkeep",
    at: /^\/upkeep/,
    for: ["steward", "administrator"],
    what: "What needs attention where you are a steward: weak, leaked or shared passwords, sign-ins that fail, access that nobody uses.",
    picture: "Upkeep of a vault: findings by the act that resolves them, two of them selected.",
    things: [
      "Begin with what needs an answer today: it is named at the top.",
      "Change now: Galtry changes the password at the site, and signs in with it before it counts. Where it cannot, change it by hand: Lanyard fills in the current one and a new one.",
      "Put off what can wait, until a date and with a reason. It comes back by itself.",
    ],
  },
  {
    id: "people",
    title: "People",
    at: /^\/people$/,
    for: ["administrator", "auditor", "steward"],
    what: {
      auditor: "Everyone who is here or was, with groups, ways to sign in and when they were last seen.",
      others: "Everyone who is here or was. Change the dotted words of the sentence to narrow the list.",
    },
    picture: "The list of people, under the sentence that narrows it.",
    things: [
      "Add people: one or two hundred at once, each with a sign-in link by email.",
      "Select several to add them to groups, set an end date or suspend them.",
      "Open a name for their access, their sessions and their groups.",
    ],
  },
  {
    id: "person",
    title: "A person",
    at: /^\/people\/[0-9a-f-]{36}/,
    what: {
      administrator:
        "One person: their access as far as you are a steward, and what you can do as an administrator: groups, ways to sign in, sessions.",
      others: "One person’s access, with the reason for each line, as far as you are a steward there.",
    },
    things: [
      "They change teams: choose the groups they leave and join, and see what they have before and after.",
      "They leave: one page says what ends, who takes over and which passwords they have seen.",
      "A device is lost: sign it out, or everything at once.",
    ],
  },
  {
    id: "add-people",
    title: "Adding people",
    at: /^\/people\/add/,
    for: ["administrator"],
    what: "Each line becomes a person with a sign-in link. What is wrong is said at the line, before anything is sent.",
    things: [
      "Paste names and email addresses, or a table with a heading row.",
      "Choose groups, a role and an end date for all of them; a line’s own words come first.",
      "Look at “On the first day”: it says what each person will have.",
    ],
  },
  {
    id: "group",
    title: "A group",
    at: /^\/people\/groups/,
    what: "People who get the same access. Being in a group that has access is access.",
    picture: "A group, with a person about to be added and what would change.",
    things: [
      "Add people, for a time if you like: what changes for them is shown first.",
      "Make someone a keeper: they can then change who is in the group.",
      "Set an end date for a whole season; moving it extends all of them.",
    ],
  },
  {
    id: "single-sign-on",
    title: "Single sign-on",
    at: /^\/people\/sign-on/,
    for: ["administrator"],
    what: "People sign in to Galtry with the account they already have at your identity provider.",
    picture: "A provider with its settings, its domains and an account that waits.",
    things: [
      "Add a provider, test it step by step, then switch it on.",
      "Prove your domains, so that an email address from the provider counts.",
      "Let the provider decide who is in a group; a dry run says first who would join and leave.",
    ],
  },
  {
    id: "house-rules",
    title: "House rules",
    at: /^\/rules/,
    for: ["colleague", "steward", "administrator", "auditor"],
    what: "What your organisation allows and requires. All staff read them; owners change them.",
    picture: "House rules as sentences, with the words that can be changed.",
    things: [
      "Limit what stewards can give, to whom and for how long.",
      "Say how people sign in, who can join by email, and before what they confirm that it is them.",
      "Write the note with the name and telephone number of the person to ask: it stands on top of every help page.",
    ],
  },
  {
    id: "journal",
    title: "Journal",
    at: /^\/journal/,
    what: {
      guest: "What you have done here.",
      colleague: "What you have done here.",
      steward: "What you have done, and what happened where you are a steward.",
      auditor: "Everything that happened, by name. No line can be changed or removed.",
      others:
        "Everything that happened. Where you have no access, entries are not named. No line can be changed or removed.",
    },
    picture: "Lines of the Journal, with who did what and when.",
    things: [
      "Narrow it by days, by person, by what was done or by words of a reason, and save what you see as CSV.",
      "Check it, and save a checkpoint in another place: pasted into a later check, it shows whether anything was changed since.",
      "Press the number of a line for its proof: your browser checks it, and it can be saved for a person outside.",
    ],
  },
  {
    id: "seen",
    title: "What someone has seen",
    at: /^\/people\/[0-9a-f-]{36}\/known/,
    for: ["steward", "administrator"],
    what: {
      steward:
        "Passwords that someone has seen and that still work: someone left, has less access than before, or lost a letter or laptop. Yours are named, with the day by which they are to be changed.",
      others:
        "Passwords that someone has seen and that still work. Ask their stewards to change them, and see how far they are.",
    },
    things: [
      "Change now: Galtry changes the passwords at their sites, one after the other, also while the page is closed.",
      "Leave one unchanged where changing it is not worth it, with a reason that the other stewards read.",
      "The list is done once nothing on it works any more. The report of it can be printed.",
    ],
  },
  {
    id: "reports",
    title: "Reports",
    at: /^\/reports/,
    for: ["steward", "administrator", "auditor"],
    what: {
      steward: "Questions about the vaults, folders and entries you are a steward of, each with its answer as a list.",
      auditor: "Questions about everything there is, each with its answer as a list.",
      others:
        "Questions about the vaults, folders and entries you are a steward of, each with its answer as a list. An owner also sees beyond that, with entries left unnamed.",
    },
    things: [
      "Ask who can use a login, since when and why; who used it, and who has seen the password that works now.",
      "Find what nobody uses, what was given for a reason that is over, and what guests have.",
      "Print the answer, save it as CSV or JSON Lines, or have it emailed every week or month.",
    ],
  },
  {
    id: "account",
    title: "You",
    at: /^\/account/,
    what: "How you sign in, where you are signed in, your Lanyards, your notices and which of them come by email.",
    things: [
      "Add a second way to sign in for the day when a phone or a password is lost, and print recovery codes.",
      "Sign out a browser or disconnect a Lanyard that you no longer use.",
      "Approve a sign-in on another device by entering the number that it shows, here or in Lanyard’s window.",
    ],
  },
];

export const help = {
  help: "Help",
  allHelp: "All help topics",
  whomToAsk: "Who to ask",
  noNoteYet: "Say here who to ask, with a telephone number.",
  changeTheNote: "Change the note",
  writeANote: "Write a note",
  note: "Note",
  readableByAnyone: "Anyone who can open the sign-in page can read it.",
  save: "Save",
  galtry: "Galtry",
  galtryHelp: "Help with Galtry",
  beforeYouAreIn: "Signing in",
  onceYouAreIn: "Page by page",
  toTheFrontDesk: "Front desk",
  toSignIn: "Sign in",
  inHelp: "In Help",
};

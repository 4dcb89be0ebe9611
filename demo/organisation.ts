/** The sample organisation, Tarrowick Museums Trust: every person and supplier is made up. */

export const ORGANISATION = "Tarrowick Museums Trust";
export const TIME_ZONE = "Europe/London";
/** Everybody's sign-in password in the demo. */
export const DEMO_PASSWORD = "loom and lantern 1887";

export interface DemoPerson {
  key: string;
  name: string;
  role: "owner" | "administrator" | "member" | "guest";
  groups: string[];
}

const person = (name: string, groups: string[], role: DemoPerson["role"] = "member"): DemoPerson => ({
  key: name.split(" ")[0]!.toLowerCase(),
  name,
  role,
  groups,
});

/** The first one sets Galtry up. */
export const PEOPLE: DemoPerson[] = [
  person("Hanna Quist", ["Digital"], "owner"),
  person("Edwin Marlowe-Tate", ["Finance"], "owner"),
  person("Ines Okafor", ["Shop Team"], "administrator"),
  person("Bram Oyelaran", ["Shop Team"]),
  person("Maren Pohl", ["Learning", "Front of House"]),
  person("Tobias Renn", ["Learning"]),
  person("Ada Brandt", ["Front of House"]),
  person("Callum Thwaite", ["Front of House"]),
  person("Priya Venkat", ["Front of House"]),
  person("Odile Faure", ["Front of House"]),
  person("Gwen Hartnoll", ["Front of House", "Shop Team"]),
  person("Silas Penhale", ["Shop Team"]),
  person("Yusuf Demirel", ["Shop Team"]),
  person("Rosalind Achterberg", ["Collections"]),
  person("Mikko Saarela", ["Collections"]),
  person("Beatrix Lund", ["Collections"]),
  person("Femi Adeyinka", ["Collections"]),
  person("Theodora Vassallo", ["Learning"]),
  person("Niall Corrigan", ["Learning"]),
  person("Juno Castellane", ["Learning"]),
  person("Harriet Sowerby", ["Estates"]),
  person("Dmitri Lazarev", ["Estates"]),
  person("Owen Pritchett", ["Estates"]),
  person("Clementine Ruddock", ["Finance"]),
  person("Samir Haddad", ["Finance"]),
  person("Wilhelmina Oosterhuis", ["Digital"]),
  person("Leopold Nkemelu", ["Digital"]),
  person("Ottilie Brackenridge", ["Volunteers"]),
  person("Jasper Wynne", ["Volunteers"]),
  person("Marguerite Dufresne", ["Volunteers"]),
  person("Kit Ashdown", [], "guest"),
];

export const GROUPS = [
  "Front of House",
  "Shop Team",
  "Collections",
  "Learning",
  "Estates",
  "Finance",
  "Digital",
  "Volunteers",
] as const;

/** Who may change who is in a group. */
export const KEEPERS: Record<string, string> = {
  "Front of House": "ada",
  Collections: "rosalind",
  Learning: "theodora",
  Estates: "harriet",
  Finance: "clementine",
  Volunteers: "gwen",
};

export interface DemoEntry {
  host: string;
  name?: string;
  description: string;
  tags?: string[];
  notes?: string;
  hosts?: string[];
  choices?: Record<string, string>;
  useSeesUserName?: boolean;
}

/** What is no website: its kind and values. */
export interface DemoThing {
  kind: string;
  name: string;
  values: Record<string, unknown>;
}

/** Hosts and names of what lies in it. */
export interface DemoFolder {
  name: string;
  holds: string[];
  grants?: { to: string; level: "use" | "reveal" | "edit"; why: string }[];
}

export interface DemoVault {
  name: string;
  description: string;
  /** Makes it and is its first steward: an administrator. */
  by: string;
  stewards: string[];
  entries: DemoEntry[];
  things?: DemoThing[];
  folders?: DemoFolder[];
  grants: { to: string; level: "use" | "reveal" | "edit" | "steward" | "blocked"; why: string }[];
}

export const VAULTS: DemoVault[] = [
  {
    name: "Shop & Tickets",
    description: "Tills, tickets and what the three shops order",
    by: "ines",
    stewards: ["bram"],
    entries: [
      { host: "quillbrook.localhost", description: "parcels, all three shops", tags: ["post"] },
      {
        host: "stallwright.localhost",
        description: "postcards and prints",
        tags: ["orders"],
        notes: "Orders before Tuesday noon come on Friday.",
      },
      { host: "lindenfold.localhost", description: "wrapping paper", tags: ["orders"] },
      { host: "peltonhay.localhost", description: "toys", tags: ["orders"] },
      { host: "rookstead.localhost", description: "local history", tags: ["orders"] },
      { host: "elmsworth.localhost", description: "tills one to four", tags: ["tills"], useSeesUserName: true },
      { host: "wexcombe.localhost", description: "stock list", tags: ["tills"] },
      { host: "marlpit.localhost", description: "art boxes, from abroad", tags: ["orders"] },
      { host: "schools.pellam.localhost", description: "school parties", tags: ["tickets"] },
    ],
    things: [
      {
        kind: "till",
        name: "Till one",
        values: { where: "Loom House, shop", operator: "14", pin: "5083", "manager-pin": "771402" },
      },
      {
        kind: "franking-machine",
        name: "Franking machine",
        values: {
          where: "Post room, Loom House",
          serial: "FR-20-44871",
          account: "9921 0074",
          pin: "6120",
          notes: "Top it up before the Friday mailing.",
          tags: ["post"],
        },
      },
    ],
    folders: [
      {
        name: "Suppliers",
        holds: ["stallwright.localhost", "peltonhay.localhost", "lindenfold.localhost", "rookstead.localhost"],
      },
      { name: "Post", holds: ["quillbrook.localhost", "Franking machine"] },
    ],
    grants: [
      { to: "group:Shop Team", level: "reveal", why: "they order and post" },
      { to: "group:Front of House", level: "use", why: "tills and tickets" },
    ],
  },
  {
    name: "Buildings",
    description: "Energy, alarms, cleaning, repairs",
    by: "hanna",
    stewards: ["harriet"],
    entries: [
      { host: "brightmere.localhost", description: "Loom House", hosts: ["brightmere-id.localhost"], tags: ["meters"] },
      { host: "millgrange.localhost", description: "water, all houses", tags: ["meters"] },
      { host: "thornlea.localhost", description: "alarms", notes: "Ring before every test." },
      { host: "wrenhollow.localhost", description: "cleaning rota" },
      { host: "almery.localhost", description: "lift contract" },
      { host: "windlesea.localhost", description: "signs" },
      { host: "brindlecote.localhost", description: "insurance; its codes come to the office telephone" },
      { host: "oakrill.localhost", description: "telephones" },
    ],
    things: [
      {
        kind: "door",
        name: "Loom House, front door",
        values: { where: "Weavers Row entrance", "code-to-enter": "4471#", keyholder: "Harriet Sowerby" },
      },
      {
        kind: "door",
        name: "Glassworks, alarm",
        values: { where: "Behind the ticket desk", "code-to-enter": "90162", "code-under-duress": "90169" },
      },
      {
        kind: "wifi",
        name: "Wi-Fi for visitors",
        values: {
          network: "Tarrowick Visitors",
          security: "WPA2 or WPA3",
          hidden: "yes",
          password: "warp-weft-shuttle",
        },
      },
      {
        kind: "server",
        name: "Climate logger, Hill Observatory",
        values: {
          host: "logger.hill.tarrowick.example",
          where: "Dome, east wall",
          userName: "reader",
          password: "Dewpoint+41 north",
        },
      },
    ],
    folders: [
      {
        name: "Doors and alarms",
        holds: ["Loom House, front door", "Glassworks, alarm", "thornlea.localhost"],
        grants: [{ to: "group:Front of House", level: "reveal", why: "they open and close" }],
      },
      { name: "Meters", holds: ["brightmere.localhost", "millgrange.localhost"] },
    ],
    grants: [{ to: "group:Estates", level: "edit", why: "their daily work" }],
  },
  {
    name: "Learning & Events",
    description: "Workshops, school visits, evening hires",
    by: "hanna",
    stewards: ["theodora"],
    entries: [
      {
        host: "hallslate.localhost",
        name: "Evening hire calendar",
        description: "all houses",
        tags: ["events"],
        useSeesUserName: true,
      },
      { host: "dovecombe.localhost", description: "workshops", tags: ["events"] },
      { host: "fennick.localhost", description: "coaches for schools", choices: { branch: "harbour" } },
      { host: "ottersby.localhost", description: "teas and receptions", tags: ["events"] },
      { host: "larchford.localhost", description: "visitor surveys" },
      { host: "kestrelmoor.localhost", description: "shifts", tags: ["season"] },
      { host: "tilbrook.localhost", description: "rota board", tags: ["season"] },
    ],
    grants: [{ to: "group:Learning", level: "reveal", why: "they book and hire" }],
  },
  {
    name: "Press & Publishing",
    description: "What the public reads and hears of us",
    by: "ines",
    stewards: ["wilhelmina"],
    entries: [
      { host: "larkbill.localhost", description: "events account", tags: ["press"] },
      { host: "starling-post.localhost", description: "monthly letter", tags: ["press"] },
      { host: "harrowmere.localhost", description: "leaflets and posters" },
      { host: "redshank.localhost", description: "pictures on loan" },
    ],
    things: [
      {
        kind: "licence",
        name: "Page layout program",
        values: {
          product: "Page layout, three seats",
          key: "TARRO-4471K-90QPL-7WEFT",
          "registered-to": "Tarrowick Museums Trust",
          seats: "3",
          expires: "2027-06-30",
        },
      },
    ],
    grants: [{ to: "group:Digital", level: "edit", why: "they publish" }],
  },
  {
    name: "Collections",
    description: "Conservation, climate, suppliers of the workshops",
    by: "hanna",
    stewards: ["rosalind"],
    entries: [
      { host: "copperfold.localhost", description: "climate in the stores" },
      { host: "glenmarsh.localhost", description: "rods and moulds for the Glassworks" },
      { host: "ashvane.localhost", description: "sky over Hill Observatory", useSeesUserName: true },
    ],
    things: [
      {
        kind: "display-case",
        name: "Case 12, the harbour goblet",
        values: {
          where: "Glassworks, long gallery",
          holds: "Harbour goblet, 1791",
          "key-number": "K-212",
          "lock-code": "3907",
        },
      },
    ],
    grants: [
      { to: "group:Collections", level: "reveal", why: "conservation" },
      { to: "everyone", level: "use", why: "the weather concerns everybody" },
    ],
  },
  {
    name: "Money",
    description: "Payroll, gifts, insurance, the bank",
    by: "edwin",
    stewards: ["clementine"],
    entries: [
      { host: "castlewick.localhost", description: "payroll" },
      { host: "tarnbeck.localhost", description: "gifts and regular giving" },
      { host: "dunmere.localhost", description: "insurance" },
      { host: "sorrelton.localhost", description: "current account" },
    ],
    things: [
      {
        kind: "card",
        name: "Office card",
        values: {
          issuer: "Sorrelton Bank",
          holder: "CLEMENTINE RUDDOCK",
          number: "9999 0000 0000 0004",
          expires: "2028-09",
          "security-code": "118",
          pin: "4029",
        },
      },
      {
        kind: "safe",
        name: "Safe in the office",
        values: {
          where: "Loom House, first floor",
          combination: "27 right, 61 left, 8 right",
          opening: "Four turns to clear it first.",
        },
      },
    ],
    grants: [{ to: "group:Finance", level: "use", why: "month end" }],
  },
  {
    name: "Web & Domains",
    description: "Hosting and names",
    by: "hanna",
    stewards: ["leopold"],
    entries: [
      { host: "foxbarrow.localhost", description: "hosting" },
      { host: "nettlecote.localhost", description: "domain names" },
    ],
    grants: [{ to: "group:Digital", level: "reveal", why: "they run the site" }],
  },
];

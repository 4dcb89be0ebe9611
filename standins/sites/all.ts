/** The practice sites of the sample organisation's suppliers. */
import { Passwords } from "../passwords";
import { accountSite } from "./account";
import { basicSite, lockingSite, puzzleSite, scriptedSite, secondHostSite, tellTaleSite, tiedSite } from "./awkward";
import { databaseSite, frameworkSite, shadowSite, storageSite } from "./drawn";
import { illMeaningSite } from "./illMeaning";
import { branchSite, codeSite, crowdedSite, legacySite, plainSite, tokenSite, userNameFirstSite } from "./plain";
import type { Site } from "./site";
import { boxesSite, questionSite, sentCodeSite } from "./stepwise";

const mail = (name: string) => `${name}@tarrowick.example`;

/** Simple ones, to fill the vaults: host, name, user name, password, what it says inside. */
const MORE: [string, string, string, string, string][] = [
  ["harrowmere", "Harrowmere Printing", mail("office"), "saffron-Gate-15-mill", "Proofs are ready."],
  ["lindenfold", "Lindenfold Paper", mail("shop"), "wrapping2019", "Wrapping paper: out on Tuesday."],
  ["castlewick", "Castlewick Payroll", mail("finance"), "ivory-Ladder-83-clover", "Next run: the 28th."],
  ["dovecombe", "Dovecombe Bookings", mail("learning"), "russet-Wagon-22-fable", "Two workshops are full."],
  ["thornlea", "Thornlea Security", mail("estates"), "marble-Finch-68-hinge", "Alarm tested on Sunday."],
  ["wrenhollow", "Wrenhollow Cleaning", mail("estates"), "cedar-Mitten-91-tower", "Windows: Thursday."],
  ["oakrill", "Oakrill Telephone", mail("office"), "plum-Rudder-37-canvas", "Six lines in use."],
  ["millgrange", "Millgrange Water", mail("estates"), "walnut-Kite-54-basin", "Reading due in June."],
  ["peltonhay", "Peltonhay Toys", mail("shop"), "teal-Bonnet-29-whistle", "Spinning tops: 120 ordered."],
  ["rookstead", "Rookstead Books", mail("shop"), "hazel-Parcel-76-inkwell", "Local history: 14 titles."],
  ["ashvane", "Ashvane Weather", mail("hill"), "silver-Comet-11-dome", "Clear until midnight."],
  ["starling-post", "Starling Post", mail("press"), "lilac-Bugle-85-margin", "Four hundred readers."],
  ["glenmarsh", "Glenmarsh Glass Supplies", mail("glassworks"), "flint-Ember-62-mould", "Rods: in stock."],
  ["copperfold", "Copperfold Conservation", mail("collections"), "linen-Archive-33-glove", "Humidity: 48 per cent."],
  ["redshank", "Redshank Image Library", mail("collections"), "umber-Plate-58-negative", "211 pictures on loan."],
  ["foxbarrow", "Foxbarrow Hosting", mail("digital"), "onyx-Cable-97-lantern", "All services run."],
  ["nettlecote", "Nettlecote Domains", mail("digital"), "jade-Anchor-24-needle", "Three names, paid until May."],
  ["elmsworth", "Elmsworth Tills", mail("shop"), "rose-Drawer-70-ledger", "Till 2: paper low."],
  ["tarnbeck", "Tarnbeck Donations", mail("finance"), "pearl-Bridge-45-giving", "This month: 61 gifts."],
  ["kestrelmoor", "Kestrelmoor Volunteers", mail("volunteers"), "mint-Basket-18-saturday", "Nine shifts to fill."],
  ["larchford", "Larchford Surveys", mail("learning"), "coral-Pencil-64-answer", "82 answers."],
  ["windlesea", "Windlesea Signs", mail("estates"), "amber-Stencil-39-arrow", "New signs on Friday."],
];

/** @param port the one they all listen on */
export function practiceSites(port: number, galtry: string, passwords = new Passwords(null)): Site[] {
  const plain = (site: Omit<Site, "router"> & { text: string }) =>
    plainSite(site, passwords.of(site.host, site.account));
  return [
    tokenSite({
      host: "pellam.localhost",
      name: "Pellam Tickets",
      signInPath: "/box-office/sign-in",
      account: { userName: mail("boxoffice"), password: "quiet-Lantern-52-harbour" },
      text: "Loom House: 214 sold. The Glassworks: 96 sold. Hill Observatory: 41 sold.",
    }),
    tokenSite({
      host: "schools.pellam.localhost",
      name: "Pellam schools desk",
      signInPath: "/box-office/sign-in",
      account: { userName: mail("schools"), password: "Brisk-otter-17-satchel" },
      text: "Three school parties this week.",
    }),
    codeSite({
      host: "quillbrook.localhost",
      name: "Quillbrook Couriers",
      signInPath: "/login",
      account: { userName: "tarrowick-shop", password: "maple/Ferry+88:postbag", code: "JBSWY3DPEHPK3PXPGEZDGNBV" },
      text: "Two parcels are on their way.",
    }),
    userNameFirstSite({
      host: "stallwright.localhost",
      name: "Stallwright Wholesale",
      signInPath: "/account",
      account: { userName: "TMT-40717", password: "gingham&Anvil=36" },
      text: "Your last order left on Monday.",
    }),
    ...secondHostSite({
      host: "brightmere.localhost",
      idHost: "brightmere-id.localhost",
      port,
      name: "Brightmere Energy",
      signInPath: "/my",
      account: { userName: mail("estates"), password: "pewter Thistle 61 kettle" },
      text: "Loom House used 412 kWh this week.",
    }),
    scriptedSite({
      host: "larkbill.localhost",
      name: "Larkbill Social",
      signInPath: "/enter",
      account: { userName: "tarrowickmuseums", password: "velvet-Magpie-09-chimney" },
      text: "Eleven new followers.",
    }),
    branchSite({
      host: "fennick.localhost",
      name: "Fennick Coaches",
      signInPath: "/groups/login",
      account: { userName: "tarrowick", password: "copper-Dial-74-meadow" },
      text: "One coach booked for Friday.",
    }),
    plain({
      host: "hallslate.localhost",
      name: "Hallslate Calendar",
      signInPath: "/sign-in",
      account: { userName: mail("events"), password: "amber-Walnut-28-rowing" },
      text: "Four evening hires this month.",
    }),
    legacySite({
      host: "marlpit.localhost",
      name: "Marlpit Bürobedarf",
      signInPath: "/shop/login.asp",
      account: { userName: "tarrowick", password: "größe-Kästchen-55" },
      text: "Ihre letzte Bestellung: Papier.",
    }),
    crowdedSite({
      host: "ottersby.localhost",
      name: "Ottersby Catering",
      signInPath: "/welcome",
      account: { userName: mail("events"), password: "linen-Pebble-43-orchard" },
      text: "Tea for forty on Saturday.",
    }),
    basicSite({
      host: "almery.localhost",
      name: "Almery Repairs",
      signInPath: "/contracts",
      account: { userName: "tarrowick", password: "tweed-Sundial-19-ferry" },
      text: "Lift contract: in force.",
    }),
    lockingSite({
      host: "tilbrook.localhost",
      name: "Tilbrook Rota",
      signInPath: "/signon",
      account: { userName: "TARROWICK", password: "pottery-Gale-82-lamp" },
      text: "Saturday: Maren, Tobias.",
    }),
    tiedSite({
      host: "wexcombe.localhost",
      name: "Wexcombe Stock",
      signInPath: "/login",
      account: { userName: "tarrowick", password: "hazel-Parcel-76-inkwell" },
      text: "Postcards: 340 left.",
    }),
    tellTaleSite({
      host: "dunmere.localhost",
      name: "Dunmere Insurance",
      signInPath: "/login",
      account: { userName: "tarrowick", password: "orchid-Bellows-31-quay" },
      text: "Policy in force.",
    }),
    puzzleSite({
      host: "sorrelton.localhost",
      name: "Sorrelton Bank",
      signInPath: "/login",
      account: { userName: "tarrowick", password: "barley-Compass-90-inn" },
      text: "",
    }),
    accountSite({
      host: "mossbeck.localhost",
      name: "Mossbeck Parcels",
      signInPath: "/sign-in",
      account: { userName: mail("office"), password: "Thicket-Parcel-07" },
      text: "No parcels today.",
    }),
    frameworkSite({
      host: "hazelrow.localhost",
      name: "Hazelrow Boards",
      signInPath: "/enter",
      account: { userName: "tarrowick", password: "cider-Lattice-47-acorn" },
      text: "Two cards are overdue.",
    }),
    storageSite({
      host: "gorsefield.localhost",
      name: "Gorsefield Markets",
      signInPath: "/login",
      account: { userName: mail("shop"), password: "heath-Bramble-12-stall" },
      text: "Stall 9 on Saturday.",
    }),
    databaseSite({
      host: "withymoor.localhost",
      name: "Withymoor Ledgers",
      signInPath: "/start",
      account: { userName: mail("books"), password: "marsh-Pewter-63-stile" },
      text: "Two pages are unbalanced.",
    }),
    shadowSite({
      host: "vellacott.localhost",
      name: "Vellacott Rooms",
      signInPath: "/guests",
      account: { userName: "tarrowick", password: "quilt-Harbour-81-lintel" },
      text: "The green room is free.",
    }),
    questionSite({
      host: "tollbarrow.localhost",
      name: "Tollbarrow Post Counter",
      signInPath: "/in",
      account: { userName: "tarrowick", password: "stamp-Meadow-54-parcel" },
      text: "Eleven letters are waiting.",
    }),
    sentCodeSite({
      host: "brindlecote.localhost",
      name: "Brindlecote Insurance",
      signInPath: "/sign-in",
      account: { userName: "tarrowick", password: "vellum-Anchor-23-thistle" },
      text: "Three policies are in force.",
    }),
    boxesSite({
      host: "penwarren.localhost",
      name: "Penwarren Lodgings",
      signInPath: "/sign-in",
      account: { userName: mail("learning"), password: "fern-Lobby-38-blanket", code: "MFRGGZDFMZTWQ2LKNNWG23TP" },
      text: "Two rooms from Friday.",
    }),
    ...MORE.map(([host, name, userName, password, text]) =>
      plain({ host: `${host}.localhost`, name, signInPath: "/sign-in", account: { userName, password }, text }),
    ),
    illMeaningSite({ host: "marrowgate.localhost", port, galtry }),
  ];
}

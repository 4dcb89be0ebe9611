/** Every language whose sign-in pages are read, each in a file of its own. */
import { af } from "./af";
import { ar } from "./ar";
import { be } from "./be";
import { bg } from "./bg";
import { bn } from "./bn";
import { ca } from "./ca";
import { cs } from "./cs";
import { cy } from "./cy";
import { da } from "./da";
import { de } from "./de";
import { el } from "./el";
import { en } from "./en";
import { es } from "./es";
import { et } from "./et";
import { eu } from "./eu";
import { fa } from "./fa";
import { fi } from "./fi";
import { fr } from "./fr";
import { gl } from "./gl";
import { he } from "./he";
import { hi } from "./hi";
import { hr } from "./hr";
import { hu } from "./hu";
import { hy } from "./hy";
import { id } from "./id";
import { icelandic } from "./is";
import { it } from "./it";
import { ja } from "./ja";
import { ka } from "./ka";
import { kk } from "./kk";
import { ko } from "./ko";
import type { Language } from "./language";
import { lt } from "./lt";
import { lv } from "./lv";
import { ms } from "./ms";
import { nb } from "./nb";
import { nl } from "./nl";
import { pl } from "./pl";
import { pt } from "./pt";
import { ro } from "./ro";
import { ru } from "./ru";
import { sk } from "./sk";
import { sl } from "./sl";
import { sr } from "./sr";
import { sv } from "./sv";
import { th } from "./th";
import { tr } from "./tr";
import { uk } from "./uk";
import { vi } from "./vi";
import { zh } from "./zh";

/** By their codes (ISO 639-1). */
export const LANGUAGES: Readonly<Record<string, Language>> = {
  en,
  de,
  fr,
  es,
  it,
  pt,
  nl,
  sv,
  da,
  nb,
  fi,
  pl,
  cs,
  sk,
  hu,
  ro,
  tr,
  hr,
  sl,
  et,
  lv,
  lt,
  ca,
  eu,
  is: icelandic,
  cy,
  vi,
  id,
  ms,
  af,
  gl,
  ru,
  uk,
  bg,
  sr,
  el,
  ja,
  ko,
  zh,
  ar,
  fa,
  he,
  hi,
  th,
  bn,
  ka,
  hy,
  kk,
  be,
};

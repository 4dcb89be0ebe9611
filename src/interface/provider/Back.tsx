"use client";

import { useEffect } from "react";
import { Entrance } from "../entrance/Entrance";
import { sayBack } from "../shared/atProvider";
import { back as t } from "./strings";

/** In a window of its own: what it was opened for is done. */
export function Back({ organisation, what }: { organisation: string | null; what: "proved" | "tested" }) {
  useEffect(() => sayBack(what), [what]);
  return (
    <Entrance organisation={organisation} title={what === "proved" ? t.signedInAgain : t.tested}>
      <p>{t.closeThisWindow}</p>
    </Entrance>
  );
}

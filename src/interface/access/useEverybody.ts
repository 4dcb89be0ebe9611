import { useEffect, useState } from "react";
import type { GridModel } from "@/server/access/grid";
import { runQuery } from "../shared/ask";

/**
 * The page comes with the people and groups whom a grant concerns. All others are fetched when they are wanted: a name is
 * looked for, everybody is shown, something is drafted for one.
 */
export function useEverybody(concerned: GridModel, at: number | null, wanted: boolean): GridModel {
  const [whole, setWhole] = useState<{ of: GridModel; model: GridModel } | null>(null);
  useEffect(() => {
    if (!wanted || whole?.of === concerned) return;
    let gone = false;
    void runQuery("access.accessGrid", { vaultId: concerned.vault.id, at, everybody: true }).then((answer) => {
      if (answer.ok && !gone) setWhole({ of: concerned, model: answer.result });
    });
    return () => {
      gone = true;
    };
  }, [concerned, at, wanted, whole]);
  // Until it is fetched anew what was fetched before stays, so that no column comes and goes.
  return wanted && whole ? whole.model : concerned;
}

import { useState } from "react";
import { ask } from "./ask";
import { main as t } from "./strings";

/** Fills a login in where it is asked for, and says why not where it could not be. */
export function FillingButton({
  label,
  message,
  look,
}: {
  label: string;
  /** What the worker is asked to do. */
  message: Parameters<typeof ask>[0];
  look: () => void;
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <>
      <button
        type="button"
        className="btn go"
        onClick={async () => {
          const report = await ask<{ outcome: string; message?: string }>(message);
          if (report.outcome === "signed-in") {
            await ask({ ask: "close-report" });
            look();
          } else setWrong(report.message ?? t.lanyardCouldNotFillThisPage);
        }}
      >
        {label}
      </button>
      {wrong && (
        <p className="small bad" role="alert">
          {wrong}
        </p>
      )}
    </>
  );
}

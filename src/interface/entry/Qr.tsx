"use client";

import { useEffect, useState } from "react";
import { qr as t } from "./strings";

const QUIET = 4;

/** A QR code, drawn in this browser. Always dark on light: cameras do not read the other. */
export function Qr({ text, label }: { text: string; label: string }) {
  const [modules, setModules] = useState<boolean[][] | "too long" | null>(null);
  useEffect(() => {
    let current = true;
    void import("uqr").then(({ encode }) => {
      try {
        if (current) setModules(encode(text, { border: 0 }).data);
      } catch {
        if (current) setModules("too long");
      }
    });
    return () => {
      current = false;
    };
  }, [text]);
  if (modules === "too long") return <p role="alert">{t.thisIsTooLongForAQr}</p>;
  if (!modules) return <div style={{ height: 280 }} />;
  const side = modules.length + QUIET * 2;
  const path = modules
    .flatMap((row, y) => row.map((dark, x) => (dark ? `M${x + QUIET} ${y + QUIET}h1v1h-1z` : "")))
    .join("");
  return (
    <svg
      viewBox={`0 0 ${side} ${side}`}
      width={280}
      height={280}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      <rect width={side} height={side} fill="#ffffff" />
      <path d={path} fill="#000000" />
    </svg>
  );
}

import { stampInk, stampLetters } from "../../src/core/stamp";

/** An entry's mark beside its name. */
export function Stamp({ name, large = false }: { name: string; large?: boolean }) {
  return (
    <span
      className={large ? "stamp large" : "stamp"}
      aria-hidden
      style={{ "--s": `var(--stamp-${stampInk(name)})` } as React.CSSProperties}
    >
      {stampLetters(name)}
    </span>
  );
}

import Link from "next/link";
import { type Reader, help as t } from "./strings";
import { findHelp } from "./topics";

/** Topics of help that hold what was typed in a finder. */
export function HelpFound({ typed, reader, onGo }: { typed: string; reader: Reader; onGo?: () => void }) {
  const found = findHelp(typed, reader);
  if (found.length === 0) return null;
  return (
    <p className="small" style={{ marginTop: 12 }}>
      <span className="soft">{t.inHelp}: </span>
      {found.map(({ id, title }, i) => (
        <span key={id}>
          {i > 0 && ", "}
          <Link href={`/help#${id}`} prefetch={false} onClick={onGo}>
            {title}
          </Link>
        </span>
      ))}
    </p>
  );
}

import Link from "next/link";
import type { ReactNode } from "react";

/** A name that leads somewhere, or the name alone where its reader cannot open it. */
export function MaybeLink({ to, children }: { to: string | null; children: ReactNode }) {
  if (to === null) return children;
  return (
    <Link href={to} prefetch={false}>
      {children}
    </Link>
  );
}

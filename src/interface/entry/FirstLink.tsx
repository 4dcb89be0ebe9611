"use client";

import Link from "next/link";
import { type ComponentProps, useEffect, useRef } from "react";

/** The link that most come for: it has the focus when the page comes, so that Enter goes on with it. */
export function FirstLink(props: ComponentProps<typeof Link>) {
  const link = useRef<HTMLAnchorElement>(null);
  // Once: a page that is drawn anew does not take the focus from where its reader has gone.
  useEffect(() => link.current?.focus({ preventScroll: true }), []);
  return <Link {...props} ref={link} />;
}

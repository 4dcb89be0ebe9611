"use client";

import Link from "next/link";
import type { ComponentProps } from "react";

/** The link that most come for: it has the focus, so that Enter goes on with it. */
export function FirstLink(props: ComponentProps<typeof Link>) {
  return <Link {...props} ref={(link) => link?.focus({ preventScroll: true })} />;
}

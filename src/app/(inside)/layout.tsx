import type { ReactNode } from "react";
import { Frame } from "@/interface/frame/Frame";
import { me } from "@/server/page";

export default async function InsideLayout({ children }: { children: ReactNode }) {
  const { name, role, steward, keeper, organisation, notices, seen, at } = await me();
  return (
    <Frame organisation={organisation} person={{ name, role, steward, keeper }} notices={notices} seen={seen} at={at}>
      {children}
    </Frame>
  );
}

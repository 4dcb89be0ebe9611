import { cookies } from "next/headers";
import type { ReactNode } from "react";
import { Frame } from "@/interface/frame/Frame";
import { me } from "@/server/page";

export default async function InsideLayout({ children }: { children: ReactNode }) {
  const { id, name, mail, role, steward, keeper, organisation, notices, codesAsked, seen, at } = await me();
  const lanyard = (await cookies()).get("galtry_lanyard")?.value;
  return (
    <Frame
      {...{ organisation, notices, codesAsked, seen, at, lanyard }}
      person={{ id, name, mail, role, steward, keeper }}
    >
      {children}
    </Frame>
  );
}

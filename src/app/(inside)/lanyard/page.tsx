import { headers } from "next/headers";
import { GetLanyard } from "@/interface/account/GetLanyard";
import { lanyardBrowser, lanyardPackage } from "@/server/lanyard/package";
import { me } from "@/server/page";

export const metadata = { title: "Get Lanyard" };

export default async function LanyardPage({ searchParams }: { searchParams: Promise<{ for?: string | string[] }> }) {
  await me();
  const browser = lanyardBrowser((await searchParams).for, (await headers()).get("user-agent") ?? "");
  const found = lanyardPackage(browser);
  return <GetLanyard browser={browser} available={found !== null} version={found?.version ?? ""} />;
}

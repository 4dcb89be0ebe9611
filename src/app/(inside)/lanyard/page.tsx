import { GetLanyard } from "@/interface/account/GetLanyard";
import { lanyardPackage } from "@/server/lanyard/package";
import { me } from "@/server/page";

export const metadata = { title: "Get Lanyard" };

export default async function LanyardPage() {
  await me();
  const found = lanyardPackage();
  return <GetLanyard available={found !== null} version={found?.version ?? ""} />;
}

import { ConnectLanyard } from "@/interface/account/ConnectLanyard";
import { me } from "@/server/page";

export const metadata = { title: "Connect Lanyard" };

export default async function ConnectPage() {
  const { name } = await me();
  return <ConnectLanyard person={name} />;
}

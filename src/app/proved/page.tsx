import { Back } from "@/interface/provider/Back";
import { organisationName } from "@/server/page";

export const metadata = { title: "Signed in again" };

export default async function ProvedPage() {
  return <Back organisation={await organisationName()} what="proved" />;
}

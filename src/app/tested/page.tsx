import { Back } from "@/interface/provider/Back";
import { organisationName } from "@/server/page";

export const metadata = { title: "Tested" };

export default async function TestedPage() {
  return <Back organisation={await organisationName()} what="tested" />;
}

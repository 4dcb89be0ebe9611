import { Join } from "@/interface/entrance/WithLink";
import { organisationName } from "@/server/page";

export const metadata = { title: "Welcome" };

export default async function JoinPage() {
  return <Join organisation={await organisationName()} />;
}

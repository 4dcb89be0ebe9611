import { EachLink } from "@/interface/entrance/EachLink";
import { Join } from "@/interface/entrance/WithLink";
import { organisationName } from "@/server/page";

export const metadata = { title: "Welcome" };

export default async function JoinPage() {
  return (
    <EachLink>
      <Join organisation={await organisationName()} />
    </EachLink>
  );
}

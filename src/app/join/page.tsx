import { EachLink } from "@/interface/entrance/EachLink";
import { Join } from "@/interface/entrance/WithLink";
import { organisationName, signInChoices } from "@/server/page";

export const metadata = { title: "Welcome" };

export default async function JoinPage() {
  return (
    <EachLink>
      <Join organisation={await organisationName()} providers={await signInChoices()} />
    </EachLink>
  );
}

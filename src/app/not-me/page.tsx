import { EachLink } from "@/interface/entrance/EachLink";
import { NotMe } from "@/interface/entrance/NotMe";
import { organisationName } from "@/server/page";

export const metadata = { title: "It was not me" };

export default async function NotMePage() {
  return (
    <EachLink>
      <NotMe organisation={await organisationName()} />
    </EachLink>
  );
}

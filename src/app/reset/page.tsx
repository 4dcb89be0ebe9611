import { EachLink } from "@/interface/entrance/EachLink";
import { NewPassword } from "@/interface/entrance/NewPassword";
import { organisationName } from "@/server/page";

export const metadata = { title: "Set a new sign-in password" };

export default async function ResetPage() {
  return (
    <EachLink>
      <NewPassword organisation={await organisationName()} />
    </EachLink>
  );
}

import { redirect } from "next/navigation";
import { EachLink } from "@/interface/entrance/EachLink";
import { SetUp } from "@/interface/entrance/WithLink";
import { organisationName } from "@/server/page";

export const metadata = { title: "Set up" };

export default async function SetUpPage() {
  if ((await organisationName()) !== null) redirect("/");
  return (
    <EachLink>
      <SetUp />
    </EachLink>
  );
}

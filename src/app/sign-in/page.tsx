import { redirect } from "next/navigation";
import { ownAddress } from "@/core/ownAddress";
import { SignIn } from "@/interface/entrance/SignIn";
import { galtry } from "@/server/galtry";
import { organisationName } from "@/server/page";

export const metadata = { title: "Sign in" };

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const organisation = await organisationName();
  if (organisation === null) redirect("/set-up");
  const { publicUrl } = (await galtry()).configuration;
  return <SignIn organisation={organisation} next={ownAddress((await searchParams).next, publicUrl)} />;
}

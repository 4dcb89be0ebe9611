import { redirect } from "next/navigation";
import { SignIn } from "@/interface/entrance/SignIn";
import { organisationName } from "@/server/page";

export const metadata = { title: "Sign in" };

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | undefined>>;
}) {
  const organisation = await organisationName();
  if (organisation === null) redirect("/set-up");
  const next = (await searchParams).next ?? "/";
  return <SignIn organisation={organisation} next={/^\/(?!\/|\\)/.test(next) ? next : "/"} />;
}

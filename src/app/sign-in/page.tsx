import { redirect } from "next/navigation";
import { ownAddress } from "@/core/ownAddress";
import { SignIn } from "@/interface/entrance/SignIn";
import { galtry } from "@/server/galtry";
import { forgottenByMail, openDomains, organisationName, signInChoices } from "@/server/page";

export const metadata = { title: "Sign in" };

export default async function SignInPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const organisation = await organisationName();
  if (organisation === null) redirect("/set-up");
  const { publicUrl } = (await galtry()).configuration;
  const { next, sso, provider } = await searchParams;
  const providers = await signInChoices();
  const back = typeof sso === "string" ? { code: sso, provider: providers.find(({ id }) => id === provider) } : null;
  return (
    <SignIn
      {...{ organisation, providers, back }}
      next={ownAddress(next, publicUrl)}
      forgottenByMail={await forgottenByMail()}
      joinDomains={await openDomains()}
    />
  );
}

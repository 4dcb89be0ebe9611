import { Account } from "@/interface/account/Account";
import { ask, me } from "@/server/page";
import { ownMailChoices, ownNotices } from "@/server/people/notices";
import { ownDevices } from "@/server/people/sessions";
import { ownWays } from "@/server/people/waysIn/ways";
import { ownAccounts } from "@/server/provider/arrivals";

export const metadata = { title: "You" };

export default async function AccountPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const { id, name, mail, role, zone } = await me();
  const [devices, ways, accounts, notices, mailed] = await Promise.all([
    ask(ownDevices, {}),
    ask(ownWays, {}),
    ask(ownAccounts, {}),
    ask(ownNotices, {}),
    ask(ownMailChoices, {}),
  ]);
  const { link, sso, provider, approve } = await searchParams;
  const back = typeof sso === "string" ? { code: sso, provider: typeof provider === "string" ? provider : null } : null;
  return (
    <Account
      id={id}
      person={name}
      mail={mail}
      staff={role !== "guest"}
      link={typeof link === "string" ? link : null}
      back={back}
      approves={approve !== undefined}
      {...{ devices, ways, accounts, notices, mailed, zone }}
      now={Date.now()}
    />
  );
}

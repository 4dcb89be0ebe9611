import { Account } from "@/interface/account/Account";
import { ask, me } from "@/server/page";
import { ownMailChoices, ownNotices } from "@/server/people/notices";
import { ownDevices } from "@/server/people/sessions";
import { ownWays } from "@/server/people/waysIn/ways";

export const metadata = { title: "You" };

export default async function AccountPage() {
  const { id, name, mail, role, zone } = await me();
  const [devices, ways, notices, mailed] = await Promise.all([
    ask(ownDevices, {}),
    ask(ownWays, {}),
    ask(ownNotices, {}),
    ask(ownMailChoices, {}),
  ]);
  return (
    <Account
      id={id}
      person={name}
      mail={mail}
      staff={role !== "guest"}
      {...{ devices, ways, notices, mailed, zone }}
      now={Date.now()}
    />
  );
}

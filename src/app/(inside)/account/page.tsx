import { Account } from "@/interface/account/Account";
import { ask, me } from "@/server/page";
import { ownNotices } from "@/server/people/persons";
import { ownDevices } from "@/server/people/sessions";

export const metadata = { title: "You" };

export default async function AccountPage() {
  const { id, name, mail, role, zone } = await me();
  const [devices, notices] = await Promise.all([ask(ownDevices, {}), ask(ownNotices, {})]);
  return (
    <Account
      id={id}
      person={name}
      mail={mail}
      staff={role !== "guest"}
      {...{ devices, notices, zone }}
      now={Date.now()}
    />
  );
}

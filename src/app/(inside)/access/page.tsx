import { redirect } from "next/navigation";
import { Page } from "@/interface/frame/Frame";
import { gridVaults } from "@/server/access/grid";
import { ask, me } from "@/server/page";

export const metadata = { title: "Access" };

export default async function AccessArea() {
  await me();
  const [first] = await ask(gridVaults, {});
  if (first) redirect(`/access/${first.id}`);
  return (
    <Page where="Who can do what, for those who are steward of something.">
      <h1>Access</h1>
      <p className="soft">
        You are steward of nothing yet. Whoever makes a vault is its first steward, and makes others.
      </p>
    </Page>
  );
}

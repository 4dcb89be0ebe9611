import { GroupPage } from "@/interface/people/GroupPage";
import { ownSlip } from "@/server/access/slip/slip";
import { ask, me } from "@/server/page";
import { groupPage } from "@/server/people/groupPage";

export const metadata = { title: "Group" };

export default async function Group({ params }: { params: Promise<{ groupId: string }> }) {
  const { groupId } = await params;
  const { id, zone } = await me();
  const [group, slip] = await Promise.all([ask(groupPage, { groupId }), ask(ownSlip, {})]);
  return <GroupPage group={group} slip={slip} me={id} zone={zone} now={Date.now()} />;
}

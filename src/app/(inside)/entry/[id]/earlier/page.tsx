import { Earlier } from "@/interface/entry/Earlier";
import { ask, me } from "@/server/page";
import { earlierVersions } from "@/server/vaults/earlier";

export const metadata = { title: "Earlier versions" };

export default async function EarlierPage({ params }: { params: Promise<{ id: string }> }) {
  const [{ id }, { zone }] = await Promise.all([params, me()]);
  return <Earlier entryId={id} first={await ask(earlierVersions, { entryId: id })} zone={zone} now={Date.now()} />;
}

import { BroughtIn } from "@/interface/bringIn/BroughtIn";
import { Page } from "@/interface/frame/Frame";
import { ask, me } from "@/server/page";
import { importPage } from "@/server/vaults/importUndo";

export const metadata = { title: "Brought in" };

export default async function BroughtInPage({ params }: { params: Promise<{ import: string }> }) {
  const [{ import: importId }] = await Promise.all([params, me()]);
  const view = await ask(importPage, { importId });
  return (
    <Page where="It can be undone for a day, here.">
      <BroughtIn importId={importId} view={view} />
    </Page>
  );
}

import { Page } from "@/interface/frame/Frame";
import { ImportDone } from "@/interface/import/ImportDone";
import { ask, me } from "@/server/page";
import { importPage } from "@/server/vaults/importUndo";

export const metadata = { title: "Imported" };

export default async function BroughtInPage({ params }: { params: Promise<{ import: string }> }) {
  const [{ import: importId }] = await Promise.all([params, me()]);
  const view = await ask(importPage, { importId });
  return (
    <Page where="You can undo the import here for a day.">
      <ImportDone importId={importId} view={view} />
    </Page>
  );
}

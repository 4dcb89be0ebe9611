import { Page } from "@/interface/frame/Frame";
import { FolderPage } from "@/interface/vaults/FolderPage";
import { whoCanDoWhat } from "@/server/access/who";
import { ask, me } from "@/server/page";
import { folderPage } from "@/server/vaults/folderPage";

export const metadata = { title: "Folder" };

export default async function FolderRoute({ params }: { params: Promise<{ folder: string }> }) {
  const [{ folder: folderId }] = await Promise.all([params, me()]);
  const folder = await ask(folderPage, { folderId });
  const who = folder.level === "steward" ? await ask(whoCanDoWhat, { nodeId: folderId }) : null;
  return (
    <Page
      where={
        <>
          <a href="/vaults">Vaults</a> · <a href={`/vaults/${folder.vault.id}`}>{folder.vault.name}</a>
          {folder.folders.map((above) => (
            <span key={above.id}>
              {" "}
              · <a href={`/vaults/${folder.vault.id}?in=${above.id}`}>{above.name}</a>
            </span>
          ))}
          . A folder.
        </>
      }
    >
      <FolderPage folder={folder} who={who} now={Date.now()} />
    </Page>
  );
}

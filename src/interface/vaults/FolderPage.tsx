"use client";

import { FolderClosed } from "lucide-react";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { atLeast } from "@/core/access/level";
import { sayTime } from "@/core/time";
import type { folderPage } from "@/server/vaults/folderPage";
import { CardPage, CardTitle, Story } from "../entry/Card";
import { WhoCanDoWhat, type WhoView } from "../entry/WhoCanDoWhat";
import { Guests } from "../guests/Guests";
import { Letterboxes } from "../guests/Letterboxes";
import { RequestSheet } from "../requests/RequestSheet";
import { useCommand } from "../shared/ask";
import { Button, ButtonLink, Notice, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { CarrySheet } from "./CarrySheet";
import { MakeFolder } from "./MakeFolder";
import { SeparateSheet } from "./SeparateSheet";
import { folderPage as t } from "./strings";

type FolderView = Awaited<ReturnType<(typeof folderPage)["execute"]>>;

/** A folder by itself: its name and place, what may be done with it, and who can do what in it. */
export function FolderPage({ folder, who, now }: { folder: FolderView; who: WhoView | null; now: number }) {
  const router = useRouter();
  const rename = useCommand("vaults.renameFolder");
  const restore = useCommand("vaults.restoreFolder");
  const [name, setName] = useState(folder.name);
  const [sheet, setSheet] = useState<"move" | "make" | "separate" | "bin" | "ask" | null>(null);
  const close = () => setSheet(null);
  const here = folder.binnedAt === null;
  const mayEdit = here && atLeast(folder.level, "edit");
  const steward = folder.level === "steward";
  return (
    <CardPage>
      <div>
        <CardTitle>
          <FolderClosed size={34} strokeWidth={1.5} aria-hidden />
          <div>
            <h1>{folder.name}</h1>
            <p className="soft small">{folder.separate ? t.separateFolderItInheritsNo : t.folder}</p>
          </div>
          <ButtonLink href={`/vaults/${folder.vault.id}?in=${folder.id}`}>{t.showItsContents}</ButtonLink>
        </CardTitle>
        {!here && (
          <Notice style={{ marginBottom: 16 }}>
            {t.sinceWithEverythingInIt(<b>{t.inTheBin}</b>, sayTime(folder.binnedAt!, now, folder.zone))}
            {folder.binnedWith === folder.id && (
              <Row style={{ marginTop: 8 }}>
                <Button onPress={() => restore.run({ folderId: folder.id })}>{t.restoreEverything}</Button>
              </Row>
            )}
          </Notice>
        )}
        {restore.refused && (
          <Notice data-tone="bad" role="alert">
            {restore.refused.message}
          </Notice>
        )}
        {mayEdit && (
          <Stack>
            <Form
              verb={t.rename}
              onSend={() => rename.run({ folderId: folder.id, name })}
              running={rename.running}
              unready={name.trim() === folder.name}
              wrong={rename.wrong()}
            >
              <TextField label={t.name} value={name} onText={setName} wrong={rename.wrong("name")} />
            </Form>
            <Row>
              <ButtonLink href={`/vaults/${folder.vault.id}/new?in=${folder.id}`}>{t.addAnEntry}</ButtonLink>
              <Button onPress={() => setSheet("make")}>{t.createAFolder}</Button>
              <Button onPress={() => setSheet("move")}>{t.move}</Button>
              {steward && (
                <Button onPress={() => setSheet("separate")}>
                  {folder.separate ? t.inheritAccessAgain : t.makeSeparate}
                </Button>
              )}
              {steward && (
                <Button look="harm" onPress={() => setSheet("bin")}>
                  {t.putInTheBin}
                </Button>
              )}
            </Row>
          </Stack>
        )}
        <Story
          title={steward ? t.inTheJournal : t.whatYouDidHere}
          lines={folder.story}
          own={!steward}
          zone={folder.zone}
          now={now}
        />
      </div>
      <aside>
        {who ? (
          <>
            <WhoCanDoWhat nodeId={folder.id} nodeWord={t.thisFolder} who={who} zone={folder.zone} now={now} />
            {here && <Guests nodeId={folder.id} name={folder.name} zone={folder.zone} now={now} />}
            {here && <Letterboxes nodeId={folder.id} name={folder.name} zone={folder.zone} now={now} />}
          </>
        ) : (
          <>
            <h2>{t.whatYouCanDo}</h2>
            <p>{folder.own.sentence}</p>
            {here && !(folder.guest && folder.own.level === "edit") && (
              <Button style={{ marginTop: 12 }} onPress={() => setSheet("ask")}>
                {t.requestMoreAccess}
              </Button>
            )}
          </>
        )}
      </aside>
      {sheet === "move" && <CarrySheet how="move" nodes={[folder]} vaultId={folder.vault.id} onClose={close} />}
      {sheet === "separate" && <SeparateSheet folder={folder} onClose={close} />}
      {sheet === "make" && (
        <MakeFolder
          parent={folder}
          onClose={close}
          onMade={(id) => router.push(`/vaults/${folder.vault.id}?in=${id}`)}
        />
      )}
      {sheet === "ask" && (
        <RequestSheet
          nodeId={folder.id}
          name={folder.name}
          has={folder.own.level}
          guest={folder.guest}
          stewards={folder.own.stewards}
          zone={folder.zone}
          onClose={close}
        />
      )}
      {sheet === "bin" && <BinFolder folder={folder} onClose={close} />}
    </CardPage>
  );
}

function BinFolder({ folder, onClose }: { folder: FolderView; onClose: () => void }) {
  const router = useRouter();
  const bin = useCommand("vaults.binFolder");
  return (
    <Dialog title={t.putInTheBin2(folder.name)} open onClose={onClose}>
      <Form
        verb={t.putInTheBin}
        look="harm"
        onSend={async () => {
          if ((await bin.run({ folderId: folder.id })).ok) router.push(`/vaults/${folder.vault.id}`);
        }}
        running={bin.running}
        onCancel={onClose}
        wrong={bin.refused?.message}
      >
        <p>{t.everythingInItGoesTooNobodyCan}</p>
      </Form>
    </Dialog>
  );
}

"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { importPage } from "@/server/vaults/importUndo";
import { useCommand } from "../shared/ask";
import { Button, ButtonLink, CheckField, Notice, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { broughtIn as t } from "./strings";
import { TestLogins } from "./TestLogins";

type ImportView = Awaited<ReturnType<(typeof importPage)["execute"]>>;

const count = (n: number) => `${n.toLocaleString("en-GB")} ${n === 1 ? "entry" : "entries"}`;
const MOST_NAMED = 300;

/** After bringing in: what is there, what needs a look, and the way back. */
export function ImportDone({ importId, view }: { importId: string; view: ImportView }) {
  const [undoing, setUndoing] = useState(false);
  const to = `/vaults/${view.vaultId}${view.parentId === view.vaultId ? "" : `?in=${view.parentId}`}`;
  return (
    <Stack style={{ maxWidth: 760 }}>
      <h1>{t.imported(view.entries, view.updated)}</h1>
      <Row>
        <ButtonLink as={Link} href={to} data-look="go">
          {t.showThemInTheVault}
        </ButtonLink>
        <Button onPress={() => setUndoing(true)}>{t.undoImport}</Button>
      </Row>
      <Notice>{t.deleteItEmptyYourComputersBin(<b>{t.theFileIsStillOnYourDisk}</b>)}</Notice>
      {view.look.length > 0 ? (
        <section>
          <h2 style={{ paddingBottom: 6, borderBottom: "1px solid var(--edge)" }}>
            {t.needAttention(view.look.length)}
          </h2>
          <ul>
            {view.look.slice(0, MOST_NAMED).map((one) => (
              <li key={one.entryId} style={{ padding: "6px 0", borderBottom: "1px solid var(--rule)" }}>
                <Link href={`/entry/${one.entryId}`} prefetch={false}>
                  {one.name}
                </Link>
                : {one.reasons.join("; ")}
              </li>
            ))}
          </ul>
          {view.look.length > MOST_NAMED && (
            <p className="soft">{t.andMore((view.look.length - MOST_NAMED).toLocaleString("en-GB"))}</p>
          )}
        </section>
      ) : (
        <p>{t.noneNeedsAttention}</p>
      )}
      <TestLogins importId={importId} count={view.testable} />
      {undoing && <Undo importId={importId} view={view} to={to} onClose={() => setUndoing(false)} />}
    </Stack>
  );
}

interface UndoProps {
  importId: string;
  view: ImportView;
  to: string;
  onClose: () => void;
}

function Undo({ importId, view, to, onClose }: UndoProps) {
  const router = useRouter();
  const undo = useCommand("vaults.undoImport");
  const [also, setAlso] = useState<ReadonlySet<string>>(new Set());
  const gone = view.entries - view.stays.length - view.beyond + also.size;
  return (
    <Dialog title={t.undoTheImport} open onClose={onClose}>
      <Form
        verb={t.putInTheBin(count(gone))}
        look="harm"
        onSend={async () => {
          if ((await undo.run({ importId, also: [...also] })).ok) router.push(to);
        }}
        running={undo.running}
        onCancel={onClose}
        wrong={undo.refused?.message}
      >
        <p>
          {t.theImportedEntriesGoToTheBin(
            view.updated > 0 && t.thatItUpdatedGetTheirPrevious(count(view.updated - view.updatedSince)),
          )}
        </p>
        {view.stays.length > 0 && (
          <fieldset>
            <legend style={{ marginBottom: 8 }}>{t.theseStayUnlessYouSelectThem}</legend>
            <Stack style={{ gap: 6, maxHeight: 260, overflow: "auto" }}>
              {view.stays.map((one) => (
                <CheckField
                  key={one.entryId}
                  label={one.name}
                  hint={t.since(one.since)}
                  checked={also.has(one.entryId)}
                  onTick={(ticked) => {
                    const next = new Set(also);
                    if (ticked) next.add(one.entryId);
                    else next.delete(one.entryId);
                    setAlso(next);
                  }}
                />
              ))}
            </Stack>
          </fieldset>
        )}
      </Form>
    </Dialog>
  );
}

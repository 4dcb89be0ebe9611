"use client";

import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { runQuery } from "../shared/ask";
import { Act, Button, Row, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { tagList as t } from "./strings";
import { undoRewrites } from "./undoRewrites";
import { useInPieces } from "./useInPieces";

interface Tag {
  name: string;
  entryIds: string[];
  editable: number;
}

interface TagListProps {
  vaultId: string;
  onClose: () => void;
  onShow: (filter: string) => void;
}

/** Tags of a vault: shown, renamed, and merged by giving one the name of another. */
export function TagList({ vaultId, onClose, onShow }: TagListProps) {
  const [tags, setTags] = useState<Tag[] | null>(null);
  const [renaming, setRenaming] = useState<Tag | null>(null);
  const load = useCallback(
    () => runQuery("vaults.vaultTags", { vaultId }).then((answer) => setTags(answer.ok ? answer.result : [])),
    [vaultId],
  );
  useEffect(() => void load(), [load]);
  return (
    <Dialog title={t.tags} open onClose={onClose}>
      {renaming ? (
        <Rename
          tag={renaming}
          known={tags ?? []}
          onClose={() => {
            setRenaming(null);
            void load();
          }}
        />
      ) : (
        <>
          <ul>
            {tags?.map((tag) => (
              <li
                key={tag.name}
                style={{ display: "flex", gap: 16, padding: "7px 0", borderBottom: "1px solid var(--rule)" }}
              >
                <span style={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
                  {tag.name} <span className="soft small">{t.entries(tag.entryIds.length)}</span>
                </span>
                <Act
                  onPress={() => {
                    onShow(tag.name);
                    onClose();
                  }}
                  aria-label={t.showEntriesWithTheTag(tag.name)}
                >
                  {t.show}
                </Act>
                {tag.editable === tag.entryIds.length && (
                  <Act onPress={() => setRenaming(tag)} aria-label={t.renameTheTag(tag.name)}>
                    {t.rename}
                  </Act>
                )}
              </li>
            ))}
          </ul>
          <Row style={{ marginTop: 16 }}>
            <Button onPress={onClose}>{t.close}</Button>
          </Row>
        </>
      )}
    </Dialog>
  );
}

function Rename({ tag, known, onClose }: { tag: Tag; known: Tag[]; onClose: () => void }) {
  const router = useRouter();
  const done = useDone();
  const [name, setName] = useState(tag.name);
  const { running, refused, inPieces } = useInPieces();
  const to = name.trim();
  const other = known.find((one) => one.name === to && one !== tag);
  const send = async () => {
    const undo = await inPieces(
      tag.entryIds,
      100,
      "vaults.tagEntries",
      (entryIds) => ({ entryIds, add: [to], remove: [tag.name] }),
      (_ids, result: { rows: { entryId: string; before: string; versionId: string }[] }) =>
        result.rows.length > 0 ? undoRewrites(result.rows) : null,
    );
    if (!undo) return;
    done(other ? t.mergedInto(tag.name, to) : t.isNowCalled(tag.name, to), undo);
    router.refresh();
    onClose();
  };
  return (
    <Form
      verb={other ? t.merge : t.rename}
      onSend={send}
      running={running !== null}
      unready={to === "" || to === tag.name || to.includes(",")}
      onCancel={onClose}
      wrong={refused}
    >
      <TextField
        label={t.becomes(tag.name)}
        value={name}
        onText={setName}
        autoFocus
        wrong={to.includes(",") ? t.aTagCannotContainAComma : null}
        hint={other ? t.alreadyExistsTheTwoBecomeOne(to) : undefined}
      />
    </Form>
  );
}

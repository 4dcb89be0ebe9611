"use client";

import { useMemo, useState } from "react";
import { runQuery } from "../shared/ask";
import { Act, Row, TextField } from "../shared/controls";
import { tagField as t } from "./strings";

interface TagFieldProps {
  vaultId: string;
  value: string;
  onText: (text: string) => void;
  wrong?: string | null;
  label?: string;
}

const MOST = 6;

export const toTags = (text: string): string[] =>
  [...new Set(text.split(",").map((tag) => tag.trim()))].filter((tag) => tag !== "");

/** Tags, separated by commas; those that are used in the vault complete what is being typed. */
export function TagField({ vaultId, value, onText, wrong, label = "Tags" }: TagFieldProps) {
  const [known, setKnown] = useState<string[] | null>(null);
  const last = value.slice(value.lastIndexOf(",") + 1).trim();
  const offered = useMemo(() => {
    const there = new Set(toTags(value));
    return (known ?? [])
      .filter((tag) => !there.has(tag) && tag.toLowerCase().startsWith(last.toLowerCase()))
      .slice(0, MOST);
  }, [known, value, last]);
  const take = (tag: string) => {
    const before = value.slice(0, value.lastIndexOf(",") + 1);
    onText(`${before}${before === "" ? "" : " "}${tag}, `);
  };
  return (
    <div>
      <TextField
        label={label}
        value={value}
        onText={onText}
        wrong={wrong}
        hint={t.separatedByCommas}
        autoComplete="off"
        onFocus={() =>
          known ??
          void runQuery("vaults.vaultTags", { vaultId }).then((answer) =>
            setKnown(answer.ok ? answer.result.map((tag) => tag.name) : []),
          )
        }
      />
      {offered.length > 0 && (
        <Row style={{ gap: 14, marginTop: 2 }}>
          <span className="soft small">{t.usedHere}</span>
          {offered.map((tag) => (
            <Act key={tag} onPress={() => take(tag)} aria-label={t.addTheTag(tag)}>
              {tag}
            </Act>
          ))}
        </Row>
      )}
    </div>
  );
}

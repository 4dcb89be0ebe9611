"use client";

import { useState } from "react";
import styled from "styled-components";
import { houseRulesSchema } from "@/core/access/houseRules";
import { Act, Button, TextField } from "../shared/controls";
import type { SetRules } from "./ruleParts";
import { joinRule as t } from "./strings";

const Domains = styled.ul`
  line-height: 28px;
  li { display: flex; gap: 14px; padding: 0; border: 0; line-height: inherit; }
`;

const Adding = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  max-width: 420px;
  line-height: 22px;
  > :first-child { flex: 1; }
`;

/** Mail domains whose people can join without being invited. */
export function JoinRule({ domains, set, mails }: { domains: readonly string[]; set: SetRules; mails: boolean }) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const add = () => {
    const read = houseRulesSchema.shape.joinDomains.safeParse([...domains, typed.replace(/^@/, "")]);
    setWrong(read.success ? null : (read.error.issues[0]?.message ?? null));
    if (!read.success) return;
    set({ joinDomains: [...new Set(read.data)] });
    setTyped("");
  };
  return (
    <li>
      {domains.length === 0 ? t.onlyInvited : t.whoCanJoin}
      {domains.length > 0 && (
        <Domains>
          {domains.map((domain) => (
            <li key={domain}>
              <b>{domain}</b>
              <Act
                aria-label={t.removeDomain(domain)}
                onPress={() => set({ joinDomains: domains.filter((one) => one !== domain) })}
              >
                {t.remove}
              </Act>
            </li>
          ))}
        </Domains>
      )}
      <Adding
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        <TextField label={t.mailDomain} placeholder={t.example} value={typed} onText={setTyped} wrong={wrong} />
        <Button type="submit" isDisabled={typed.trim() === ""}>
          {t.add}
        </Button>
      </Adding>
      {domains.length > 0 && <span className="small soft">{mails ? t.byACode : t.onceMailIsSetUp}</span>}
    </li>
  );
}

"use client";

import { houseRulesSchema } from "@/core/access/houseRules";
import { AddName, Removable } from "./ruleLists";
import type { SetRules } from "./ruleParts";
import { joinRule as t } from "./strings";

/** Mail domains whose people can join without being invited. */
export function JoinRule({ domains, set, mails }: { domains: readonly string[]; set: SetRules; mails: boolean }) {
  const add = (typed: string) => {
    const read = houseRulesSchema.shape.joinDomains.safeParse([...domains, typed.replace(/^@/, "")]);
    if (!read.success) return read.error.issues[0]?.message ?? "";
    set({ joinDomains: [...new Set(read.data)] });
    return null;
  };
  return (
    <li>
      {domains.length === 0 ? t.onlyInvited : t.whoCanJoin}
      <Removable
        items={domains.map((domain) => ({ id: domain, name: domain }))}
        removing={t.removeDomain}
        onRemove={(domain) => set({ joinDomains: domains.filter((one) => one !== domain) })}
      />
      <AddName label={t.mailDomain} placeholder={t.example} adding={t.addDomain} onAdd={add} />
      {domains.length > 0 && <span className="small soft">{mails ? t.byACode : t.onceMailIsSetUp}</span>}
    </li>
  );
}

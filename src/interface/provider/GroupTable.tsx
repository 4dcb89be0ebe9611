"use client";

import styled from "styled-components";
import type { ResultOf } from "@/server/registry";
import { useCommand } from "../shared/ask";
import { Act, Notice, Select } from "../shared/controls";
import { useDone } from "../shared/Done";
import { groupTable as t } from "./strings";
import type { Provider } from "./types";

const Table = styled.table`
  width: 100%;
  margin-top: 10px;
  border-collapse: collapse;
  background: var(--sheet);
  border-top: 3px solid var(--ink);
  th, td { padding: 8px 12px; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; overflow-wrap: anywhere; }
  thead th { color: var(--soft); font-size: 13.5px; }
  select { max-width: 100%; }
  details { font-size: 14px; }
  @media (max-width: 719px) {
    thead { display: none; }
    tr { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); border-bottom: 1px solid var(--rule); }
    th, td { border: 0; padding: 6px 8px; }
  }
`;

type Tabled = ResultOf<"provider.groupTable">;

/** Which group there is which here, who would join and leave, and from when the provider decides. */
export function GroupTable({ provider, table }: { provider: Provider; table: Tabled }) {
  const match = useCommand("provider.matchGroup");
  const apply = useCommand("provider.applyGroup");
  const release = useCommand("provider.releaseGroup");
  const done = useDone();
  const refused = [match, apply, release].map((one) => one.refused).find(Boolean);
  return (
    <section aria-label={t.groups}>
      <h3>{t.groups}</h3>
      <p className="soft small">{table.lines.length === 0 ? t.none : t.from}</p>
      {refused && (
        <Notice data-tone="bad" role="alert">
          {refused.message}
        </Notice>
      )}
      {table.lines.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>{t.there}</th>
              <th>{t.inGaltry}</th>
              <th>{t.wouldJoin}</th>
              <th>{t.wouldLeave}</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {table.lines.map((line) => (
              <tr key={line.id}>
                <th scope="row">
                  {line.name}
                  <span className="soft small" style={{ display: "block", fontWeight: 400 }}>
                    {t.members(line.there)}, {line.scim ? t.byScim : t.bySignIn}
                  </span>
                </th>
                <td>
                  {line.applied ? (
                    <>
                      {table.here.find(({ id }) => id === line.groupId)?.name}{" "}
                      <span className="soft small">{t.decides}</span>
                    </>
                  ) : (
                    <Select
                      aria-label={t.groupFor(line.name)}
                      value={line.groupId ?? ""}
                      onChange={(event) => match.run({ providerGroupId: line.id, groupId: event.target.value || null })}
                    >
                      <option value="">{t.noGroup}</option>
                      {table.here.map((group) => (
                        <option key={group.id} value={group.id}>
                          {group.name}
                        </option>
                      ))}
                    </Select>
                  )}
                </td>
                <td>
                  <Named count={line.joins} names={line.join} />
                </td>
                <td>
                  <Named count={line.leaves} names={line.leave} />
                </td>
                <td>
                  {line.applied ? (
                    <Act onPress={() => release.run({ providerGroupId: line.id })} aria-label={t.releaseFor(line.name)}>
                      {t.release}
                    </Act>
                  ) : (
                    line.groupId !== null && (
                      <Act
                        aria-label={t.applyFor(line.name)}
                        onPress={async () => {
                          const { joins, leaves } = line;
                          const answer = await apply.run({ providerGroupId: line.id, joins, leaves });
                          if (answer.ok) done(t.applied(line.name, joins, leaves));
                        }}
                      >
                        {t.apply}
                      </Act>
                    )
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </section>
  );
}

function Named({ count, names }: { count: number; names: string[] }) {
  if (count === 0) return <>0</>;
  return (
    <details>
      <summary>{count.toLocaleString("en-GB")}</summary>
      {names.join(", ")}
    </details>
  );
}

"use client";

import Link from "next/link";
import styled from "styled-components";
import { levelWord } from "@/core/access/level";
import { harmless, writeCsv } from "@/core/formats/csv";
import { exactTime } from "@/core/time";
import { Page } from "../frame/Frame";
import { Button } from "../shared/controls";
import { fileName, save } from "../shared/save";
import { Head } from "../vaults/VaultList";
import { roundRecord as t } from "./strings";
import { ODD_WORDS, type RoundView, SAY_WORDS, sayCounts } from "./words";

type Finished = RoundView["finished"][number];

const Table = styled.table`
  width: 100%;
  margin-top: 12px;
  border-collapse: collapse;
  background: var(--sheet);
  th, td { padding: 8px 10px; border-bottom: 1px solid var(--rule); text-align: left; vertical-align: top; font-size: 14px; line-height: 20px; overflow-wrap: anywhere; }
  thead th { border-top: 3px solid var(--ink); color: var(--soft); font-weight: 400; }
  @media print { th, td { padding: 3pt 5pt; font-size: 9pt; line-height: 12pt; border-color: #999; } thead { display: table-header-group; } tr { break-inside: avoid; } }
`;

const Acts = styled.div`
  display: flex;
  gap: 10px;
  @media print { display: none; }
`;

/** What was said of each grant, by whom and when: as it was then, for whoever audits it. */
export function RoundRecord({
  vault,
  one,
  zone,
  now,
}: {
  vault: RoundView["vault"];
  one: Finished;
  zone: string;
  now: number;
}) {
  const row = (line: Finished["kept"][number]): string[] => [
    line.who,
    line.what,
    levelWord(line.level) + (line.until === null ? "" : t.until(exactTime(line.until, zone))),
    line.lastUse === null ? "never" : exactTime(line.lastUse, zone),
    line.odd.map((odd) => ODD_WORDS[odd]).join(", "),
    SAY_WORDS[line.say],
    line.by,
    exactTime(line.at, zone),
  ];
  const heads = ["Who", "On", "Has", t.lastUse, "Odd", "Said", "By", "When"];
  return (
    <Page
      where={t.aRecordCannotBeChanged(
        <Link href={`/access/${vault.id}`}>{t.access}</Link>,
        <Link href={`/access/${vault.id}/rounds`}>{t.rounds}</Link>,
        <b>{vault.name}</b>,
      )}
    >
      <Head>
        <h1>{t.roundOf(vault.name)}</h1>
        <Acts>
          <Button
            onPress={() =>
              save(
                new Blob([
                  "\uFEFF",
                  writeCsv(
                    heads,
                    one.kept.map((line) => row(line).map(harmless)),
                  ),
                ]),
                `round-${fileName(vault.name)}.csv`,
              )
            }
          >
            {t.csv}
          </Button>
          <Button onPress={() => window.print()}>{t.print}</Button>
        </Acts>
      </Head>
      <p>
        {t.startedFinishedByAccessToLower(
          exactTime(one.startedAt, zone),
          exactTime(one.finishedAt, zone),
          <b>{one.by}</b>,
          sayCounts(one.kept),
          <span className="soft">{t.read(exactTime(now, zone))}</span>,
        )}
      </p>
      <div style={{ overflowX: "auto" }}>
        <Table>
          <thead>
            <tr>
              {heads.map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {one.kept.map((line) => {
              const [who, ...rest] = row(line);
              return (
                <tr key={row(line).join("\n")}>
                  <th scope="row">{who}</th>
                  {rest.map((text, i) => (
                    <td key={heads[i + 1]}>{text}</td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </Table>
      </div>
    </Page>
  );
}

"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { sayFullDate } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { Page } from "../frame/Frame";
import { useCommand } from "../shared/ask";
import { Button, Chip, Notice, Row, Tick } from "../shared/controls";
import { useDone } from "../shared/Done";
import { Head } from "../vaults/VaultList";
import { houseKeys as t } from "./strings";

const Table = styled.table`
  width: 100%;
  margin: 16px 0 32px;
  border-collapse: collapse;
  background: var(--sheet);
  --ground: var(--sheet);
  border-top: 3px solid var(--ink);
  th, td { padding: 8px 12px; text-align: left; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  th { font-size: 13.5px; font-weight: 600; color: var(--soft); }
  .tick { width: 42px; }
  @media (max-width: 719px) { th:nth-child(3), td:nth-child(3) { display: none; } }
`;

const Others = styled.dl`
  margin-top: 12px;
  border-top: 1px solid var(--edge);
  > div { padding: 12px 0; border-bottom: 1px solid var(--rule); }
  dt { font-weight: 600; }
  dd { margin: 2px 0 0; }
`;

/** How often a rotation that is under way is looked at. */
const LOOK_MS = 2_000;

/** How old each key is, and rotating those of the vaults. */
export function HouseKeys({ view }: { view: ResultOf<"rules.houseKeys"> }) {
  const router = useRouter();
  const done = useDone();
  const rotate = useCommand("rules.rotateVaultKeys");
  const stop = useCommand("rules.stopVaultKeys");
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const { vaults, root, providers, zone } = view;
  const moving = vaults.filter((row) => row.rotating && !row.stopped).map(({ vaultId }) => vaultId);
  const stopped = vaults.filter((row) => row.stopped).map(({ vaultId }) => vaultId);
  const resting = vaults.filter((row) => !row.rotating).map(({ vaultId }) => vaultId);
  const chosen = resting.filter((id) => picked.has(id));
  const isMoving = moving.length > 0;
  useEffect(() => {
    if (!isMoving) return;
    const timer = setInterval(() => router.refresh(), LOOK_MS);
    return () => clearInterval(timer);
  }, [isMoving, router]);
  const pick = (ids: readonly string[], on: boolean) => {
    const next = new Set(picked);
    for (const id of ids) on ? next.add(id) : next.delete(id);
    setPicked(next);
  };
  const rotateChosen = async () => {
    const answer = await rotate.run({ vaultIds: chosen });
    if (!answer.ok) return;
    setPicked(new Set());
    done(t.rotated(answer.result.length));
  };
  return (
    <Page where={t.what}>
      <Head>
        <h1>{t.keysOfTheHouse}</h1>
        <Button look="go" isDisabled={chosen.length === 0 || rotate.running} onPress={() => void rotateChosen()}>
          {chosen.length === 0 ? t.rotateSelected : t.rotate(chosen.length)}
        </Button>
      </Head>
      {(rotate.refused ?? stop.refused) && (
        <Notice data-tone="bad" role="alert">
          {(rotate.refused ?? stop.refused)!.message}
        </Notice>
      )}
      {(isMoving || stopped.length > 0) && (
        <Row>
          <span role="status">{t.underWay(moving.length + stopped.length)}</span>
          {isMoving && (
            <Button isDisabled={stop.running} onPress={() => void stop.run({ vaultIds: moving, stopped: true })}>
              {t.stop}
            </Button>
          )}
          {stopped.length > 0 && (
            <Button isDisabled={stop.running} onPress={() => void stop.run({ vaultIds: stopped, stopped: false })}>
              {t.resume}
            </Button>
          )}
        </Row>
      )}
      <Table>
        <thead>
          <tr>
            <th className="tick" scope="col">
              <Tick
                type="checkbox"
                aria-label={t.selectAll}
                checked={resting.length > 0 && chosen.length === resting.length}
                disabled={resting.length === 0}
                onChange={() => pick(resting, chosen.length !== resting.length)}
              />
            </th>
            <th scope="col">{t.vault}</th>
            <th scope="col">{t.key}</th>
            <th scope="col">{t.since}</th>
            <th scope="col">{t.state}</th>
          </tr>
        </thead>
        <tbody>
          {vaults.map((row) => (
            <tr key={row.vaultId}>
              <td className="tick">
                <Tick
                  type="checkbox"
                  aria-label={t.select(row.name)}
                  checked={picked.has(row.vaultId) && !row.rotating}
                  disabled={row.rotating}
                  onChange={(event) => pick([row.vaultId], event.target.checked)}
                />
              </td>
              <td>{row.name}</td>
              <td>{t.number(row.version)}</td>
              <td>{sayFullDate(row.madeAt, zone)}</td>
              <td>{row.rotating && <Chip>{row.stopped ? t.stopped : t.rotating}</Chip>}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <h2>{t.otherKeys}</h2>
      <Others>
        <div>
          <dt>{t.rootKey}</dt>
          <dd>
            {t.rootKeyIs(root.number, sayFullDate(root.at, zone))}{" "}
            {t.rootKeyHow(<code>npm run rotate-root-key -- FILE</code>)}
          </dd>
        </div>
        {providers.map(({ id, name, secretAt, scimAt }) => (
          <div key={id} hidden={secretAt === null && scimAt === null}>
            {secretAt !== null && (
              <>
                <dt>{t.clientSecret(name)}</dt>
                <dd>
                  {t.enteredOn(sayFullDate(secretAt, zone))} <Link href="/people/sign-on">{t.change}</Link>
                </dd>
              </>
            )}
            {scimAt !== null && (
              <>
                <dt>{t.scimToken(name)}</dt>
                <dd>
                  {t.createdOn(sayFullDate(scimAt, zone))} <Link href="/people/sign-on">{t.change}</Link>
                </dd>
              </>
            )}
          </div>
        ))}
      </Others>
    </Page>
  );
}

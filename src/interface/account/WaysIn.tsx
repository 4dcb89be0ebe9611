"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { ResultOf } from "@/server/registry";
import { Qr } from "../entry/Qr";
import { NewPasswordFields, useNewPassword } from "../passwords/NewPasswordFields";
import { type Answer, type Refusal, runCommand, useCommand } from "../shared/ask";
import { Act, Button, Notice, Row, Stack, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Form } from "../shared/Form";
import { makePasskey } from "../shared/passkey";
import { GIVEN_UP } from "../shared/proving";
import { useCopy } from "../shared/useCopy";
import { Accounts } from "./Accounts";
import { waysIn as t } from "./strings";

const Lines = styled.ul`
  border-top: 3px solid var(--ink);
  li { display: grid; grid-template-columns: minmax(0, 1fr) auto; gap: 6px 16px; align-items: center; padding: 10px 0; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  .acts { display: flex; flex-wrap: wrap; gap: 4px 16px; }
`;

const Codes = styled.ol`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px 24px;
  padding: 14px 16px;
  border: 1px solid var(--edge);
  font: 400 16px/24px var(--mono);
`;

type Ways = ResultOf<"people.ownWays">;
type Sheet =
  | { sheet: "password" }
  | { sheet: "app"; secret: string; address: string }
  | { sheet: "codes"; codes: string[] }
  | { sheet: "rename"; id: string; name: string };

/** How one signs in to Galtry: password, passkeys, one-time codes, recovery codes. Each change is confirmed first. */
interface WaysInProps {
  ways: Ways;
  accounts: ResultOf<"provider.ownAccounts">;
  link: string | null;
  back: { code: string; provider: string | null } | null;
  zone: string;
  now: number;
}

export function WaysIn({ ways, accounts, link, back, zone, now }: WaysInProps) {
  const [open, setOpen] = useState<Sheet | null>(null);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const done = useDone();
  const removeKey = useCommand("people.removePasskey");
  const removeApp = useCommand("people.removeCodeApp");
  const add = useCommand("people.addPasskey");
  const router = useRouter();
  const close = () => {
    setOpen(null);
    router.refresh();
  };
  /** Says what was refused; what was given up is no error. */
  const heard = <R,>(answer: Answer<R>): answer is Extract<Answer<R>, { ok: true }> => {
    setRefused(answer.ok || answer.refused.code === GIVEN_UP ? null : answer.refused);
    return answer.ok;
  };
  const addKey = async () => {
    const made = await makePasskey(await runCommand("people.beginPasskey", {}));
    if (!made.ok) return void heard(made);
    const added = await add.run(made.result);
    if (heard(added)) done(t.passkeyAdded(added.result.name));
  };
  const beginApp = async () => {
    const answer = await runCommand("people.beginCodeApp", {});
    if (heard(answer)) setOpen({ sheet: "app", ...answer.result });
  };
  const makeCodes = async () => {
    const answer = await runCommand("people.makeRecoveryCodes", {});
    if (heard(answer)) setOpen({ sheet: "codes", codes: answer.result.codes });
  };
  const second = ways.keys.length > 0 || ways.codeApp !== null;
  return (
    <>
      {refused && (
        <Notice data-tone="bad" role="alert" style={{ marginBottom: 12 }}>
          {refused.message}
        </Notice>
      )}
      <Lines>
        <Accounts {...{ accounts, link, back, zone, now }} />
        <li>
          <span>
            <b>{t.signInPassword}</b>
            <span className="soft small" style={{ display: "block" }}>
              {!ways.password ? t.noneSet : second ? t.withASecondStep : t.onItsOwn}
            </span>
          </span>
          <Act onPress={() => setOpen({ sheet: "password" })}>{ways.password ? t.change : t.setOne}</Act>
        </li>
        {ways.keys.map((key) => (
          <li key={key.id}>
            <span>
              <b>{t.passkeyCalled(key.name)}</b>
              <span className="soft small" style={{ display: "block" }}>
                {t.addedAndUsed(
                  sayTime(key.createdAt, now, zone),
                  key.lastUsedAt === null ? null : sayTime(key.lastUsedAt, now, zone),
                )}
              </span>
            </span>
            <span className="acts">
              <Act
                aria-label={t.renameKey(key.name)}
                onPress={() => setOpen({ sheet: "rename", id: key.id, name: key.name })}
              >
                {t.rename}
              </Act>
              <Act
                aria-label={t.removeKey(key.name)}
                onPress={async () => void heard(await removeKey.run({ passkeyId: key.id }))}
              >
                {t.remove}
              </Act>
            </span>
          </li>
        ))}
        <li>
          <span>
            <b>{ways.keys.length > 0 ? t.anotherPasskey : t.passkey}</b>
            <span className="soft small" style={{ display: "block" }}>
              {t.whatAPasskeyIs}
            </span>
          </span>
          <Act onPress={() => void addKey()}>{t.addAPasskey}</Act>
        </li>
        <li>
          <span>
            <b>{t.oneTimeCodes}</b>
            <span className="soft small" style={{ display: "block" }}>
              {ways.codeApp
                ? t.addedAndUsed(
                    sayTime(ways.codeApp.since, now, zone),
                    ways.codeApp.lastUsedAt === null ? null : sayTime(ways.codeApp.lastUsedAt, now, zone),
                  )
                : t.fromAnAppOnYourPhone}
            </span>
          </span>
          {ways.codeApp ? (
            <Act onPress={async () => void heard(await removeApp.run({}))} aria-label={t.removeCodes}>
              {t.remove}
            </Act>
          ) : (
            <Act onPress={() => void beginApp()}>{t.setUpCodes}</Act>
          )}
        </li>
        {second && (
          <li>
            <span>
              <b>{t.recoveryCodes}</b>
              <span className="soft small" style={{ display: "block" }}>
                {t.codesLeft(ways.recoveryLeft)}
              </span>
            </span>
            <Act onPress={() => void makeCodes()}>{ways.recoveryLeft > 0 ? t.createNewCodes : t.createCodes}</Act>
          </li>
        )}
      </Lines>
      {open?.sheet === "password" && <ChangePassword onClose={close} />}
      {open?.sheet === "app" && <SetUpApp {...open} onClose={close} />}
      {open?.sheet === "codes" && <ShowCodes codes={open.codes} onClose={close} />}
      {open?.sheet === "rename" && <Rename {...open} onClose={close} />}
    </>
  );
}

function ChangePassword({ onClose }: { onClose: () => void }) {
  const change = useCommand("people.changePassword");
  const { password, matches, fields } = useNewPassword();
  const done = useDone();
  return (
    <Dialog title={t.changeSignInPassword} open onClose={onClose}>
      <Form
        verb={t.change}
        running={change.running}
        onCancel={onClose}
        wrong={change.wrong()}
        onSend={async () => {
          if (!matches()) return;
          const answer = await change.run({ password });
          if (!answer.ok) return;
          done(t.passwordChanged);
          onClose();
        }}
      >
        <NewPasswordFields fields={fields} label={t.newPassword} hints={[]} wrong={change.wrong("password")} />
      </Form>
    </Dialog>
  );
}

function SetUpApp({ secret, address, onClose }: { secret: string; address: string; onClose: () => void }) {
  const confirm = useCommand("people.confirmCodeApp");
  const [code, setCode] = useState("");
  const done = useDone();
  return (
    <Dialog title={t.setUpCodes} open onClose={onClose}>
      <Form
        verb={t.turnOn}
        running={confirm.running}
        onCancel={onClose}
        wrong={confirm.wrong()}
        unready={code.trim() === ""}
        onSend={async () => {
          if (!(await confirm.run({ code })).ok) return;
          done(t.codesAreOn);
          onClose();
        }}
      >
        <p>{t.scanThis}</p>
        <Qr text={address} label={t.qrForTheApp} />
        <p className="small">
          {t.orType} <span className="mono">{secret.replace(/(.{4})/g, "$1 ").trim()}</span>
        </p>
        <TextField
          label={t.codeOfTheApp}
          value={code}
          onText={setCode}
          inputMode="numeric"
          autoComplete="one-time-code"
          className="mono"
          wrong={confirm.wrong("code")}
          hint={t.itCountsOnce}
        />
      </Form>
    </Dialog>
  );
}

function ShowCodes({ codes, onClose }: { codes: string[]; onClose: () => void }) {
  const { copy, copied } = useCopy();
  return (
    <Dialog title={t.recoveryCodes} open onClose={onClose}>
      <Stack>
        <p>{t.keepThem}</p>
        <Codes>
          {codes.map((code) => (
            <li key={code}>{code}</li>
          ))}
        </Codes>
        <Row>
          <Button look="go" onPress={() => window.print()}>
            {t.print}
          </Button>
          <Button onPress={() => copy(codes.join("\n"), true)}>{copied ? t.copied : t.copy}</Button>
          <Button onPress={onClose}>{t.done}</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

function Rename({ id, name: before, onClose }: { id: string; name: string; onClose: () => void }) {
  const rename = useCommand("people.renamePasskey");
  const [name, setName] = useState(before);
  return (
    <Dialog title={t.renameKey(before)} open onClose={onClose}>
      <Form
        verb={t.rename}
        running={rename.running}
        onCancel={onClose}
        wrong={rename.wrong()}
        onSend={async () => {
          if ((await rename.run({ passkeyId: id, name })).ok) onClose();
        }}
      >
        <TextField label={t.name} value={name} onText={setName} wrong={rename.wrong("name")} autoFocus />
      </Form>
    </Dialog>
  );
}

"use client";

import { useEffect, useState } from "react";
import { sayTime } from "@/core/time";
import type { keyState } from "@/server/vaults/rotation";
import { runQuery, useCommand } from "../shared/ask";
import { Button, Notice, Row, Stack } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { keySheet as t } from "./strings";

type KeyState = Awaited<ReturnType<(typeof keyState)["execute"]>>;

/** How often a rotation that is under way is looked at. */
const LOOK_MS = 1_000;

/** The key that encrypts what a vault holds: how old it is, and rotating it. */
export function KeySheet({ vault, onClose }: { vault: { id: string; name: string }; onClose: () => void }) {
  const rotate = useCommand("vaults.rotateKey");
  const stop = useCommand("vaults.stopRotation");
  const [state, setState] = useState<KeyState | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const [looks, setLooks] = useState(0);
  useEffect(() => {
    let here = true;
    void runQuery("vaults.keyState", { vaultId: vault.id }).then((answer) => {
      if (!here) return;
      setWrong(answer.ok ? null : answer.refused.message);
      if (answer.ok) setState(answer.result);
    });
    return () => {
      here = false;
    };
  }, [vault.id, looks]);
  const lookAgain = () => setLooks((before) => before + 1);
  const moving = state?.rotating && !state.stopped;
  useEffect(() => {
    if (!moving) return;
    const timer = setInterval(() => setLooks((before) => before + 1), LOOK_MS);
    return () => clearInterval(timer);
  }, [moving]);
  const done = state ? state.all - state.left : 0;
  return (
    <Dialog title={t.encryptionKeyOf(vault.name)} open onClose={onClose}>
      <Stack>
        <p>{t.everythingInThisVaultIs}</p>
        {state && <p>{t.theKeyInUseIsNumberCreated(state.version, sayTime(state.madeAt, state.now, state.zone))}</p>}
        {state?.rotating && (
          <div>
            <progress
              value={done}
              max={Math.max(1, state.all)}
              style={{ width: "100%" }}
              aria-label={t.encryptedAgain}
            />
            <p aria-live="polite">
              {t.ofEncryptedAgain(
                done.toLocaleString("en-GB"),
                state.all.toLocaleString("en-GB"),
                state.stopped && ". Stopped. Everything opens as before",
              )}
            </p>
          </div>
        )}
        {(wrong ?? rotate.refused ?? stop.refused) && (
          <Notice role="alert">{wrong ?? rotate.refused?.message ?? stop.refused?.message}</Notice>
        )}
        <Row>
          {state && !state.rotating && (
            <Button
              look="go"
              isDisabled={rotate.running}
              onPress={() => void rotate.run({ vaultId: vault.id }).then(lookAgain)}
            >
              {t.rotateTheKey}
            </Button>
          )}
          {state?.rotating && (
            <Button
              isDisabled={stop.running}
              onPress={() => void stop.run({ vaultId: vault.id, stopped: !state.stopped }).then(lookAgain)}
            >
              {state.stopped ? t.resumeTheRotation : t.stopTheRotation}
            </Button>
          )}
          <Button onPress={onClose}>{t.close}</Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

"use client";

import { useState } from "react";
import { makeSshKey, type SshKeyType } from "@/core/crypto/sshKey";
import { Button, Chip, ChoiceField, Notice, Row } from "../shared/controls";
import { makeSshKey as t } from "./strings";

/** Makes a key pair in this browser and puts it into the form; nothing leaves before the form is sent. */
export function MakeSshKey({ comment, onMade }: { comment: string; onMade: (values: Record<string, string>) => void }) {
  const [type, setType] = useState<SshKeyType>("Ed25519");
  const [running, setRunning] = useState(false);
  const [fingerprint, setFingerprint] = useState("");
  const [wrong, setWrong] = useState(false);
  const make = async () => {
    setRunning(true);
    try {
      const key = await makeSshKey(type, comment);
      onMade({ "public-key": key.publicKey, "private-key": key.privateKey, passphrase: "" });
      setFingerprint(key.fingerprint);
    } catch {
      setWrong(true);
    }
    setRunning(false);
  };
  return (
    <div>
      <Row style={{ alignItems: "end" }}>
        <ChoiceField label={t.createAKey} value={type} onText={(text) => setType(text as SshKeyType)}>
          <option>{t.ed25519}</option>
          <option>{t.rsa4096}</option>
        </ChoiceField>
        <Button onPress={make} isDisabled={running}>
          {running ? t.creatingIt : t.createKey}
        </Button>
      </Row>
      {fingerprint && (
        <p role="status" className="small" style={{ marginTop: 8, overflowWrap: "anywhere" }}>
          <Chip data-tone="good">{t.created}</Chip> <span className="mono">{fingerprint}</span>
        </p>
      )}
      {wrong && <Notice data-tone="bad">{t.thisBrowserCannotCreateSuchA}</Notice>}
    </div>
  );
}

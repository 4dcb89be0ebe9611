"use client";

import { useState } from "react";
import { makeSshKey, type SshKeyType } from "@/core/crypto/sshKey";
import { Button, Chip, ChoiceField, Notice, Row } from "../shared/controls";

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
        <ChoiceField label="Make a key here" value={type} onText={(text) => setType(text as SshKeyType)}>
          <option>Ed25519</option>
          <option>RSA 4096</option>
        </ChoiceField>
        <Button onPress={make} isDisabled={running}>
          {running ? "Making it" : "Make the key"}
        </Button>
      </Row>
      {fingerprint && (
        <p role="status" className="small" style={{ marginTop: 8, overflowWrap: "anywhere" }}>
          <Chip data-tone="good">made</Chip> <span className="mono">{fingerprint}</span>
        </p>
      )}
      {wrong && <Notice data-tone="bad">This browser cannot make such a key. Choose the other sort.</Notice>}
    </div>
  );
}

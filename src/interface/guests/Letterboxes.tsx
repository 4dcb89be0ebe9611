"use client";

import Link from "next/link";
import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { letterboxList } from "@/server/access/handover/letterbox";
import { runQuery, useCommand } from "../shared/ask";
import { Act, Button, Chip, Row, Stack, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, soonEnds, toLocal } from "../shared/localTime";
import { useCopy } from "../shared/useCopy";
import { letterboxes as t } from "./strings";

type Box = Awaited<ReturnType<(typeof letterboxList)["execute"]>>[number];

const Lines = styled.ul`
  li { padding: 9px 0; border-top: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
`;

interface Props {
  nodeId: string;
  name: string;
  zone: string;
  now: number;
}

/** Links by which somebody outside drops a secret into a folder. */
export function Letterboxes({ nodeId, name, zone, now }: Props) {
  const [boxes, setBoxes] = useState<Box[] | null>(null);
  const [hanging, setHanging] = useState(false);
  const close = useCommand("access.closeLetterbox");
  const read = useCallback(async () => {
    const answer = await runQuery("access.letterboxList", { nodeId });
    if (answer.ok) setBoxes(answer.result);
  }, [nodeId]);
  // Anew with the page: something may have been dropped in.
  useEffect(() => void read(), [read, now]);
  if (!boxes) return null;
  return (
    <section aria-label={t.letterboxes} style={{ marginTop: 28 }}>
      <h2 style={{ marginBottom: 6 }}>{t.letterboxes}</h2>
      {boxes.length === 0 && <p className="soft">{t.forASecretThatSomeoneOutside}</p>}
      <Lines>
        {boxes.map((box) => (
          <li key={box.id}>
            <b>{box.name}</b> <span className="soft small">{box.labels.join(", ")}</span>
            <br />
            {box.end === "dropped" ? (
              <>
                <Chip data-tone="good">{t.received}</Chip>{" "}
                <Link href={`/entry/${box.entryId}`} prefetch={false}>
                  {sayTime(box.droppedAt!, now, zone)}
                </Link>
              </>
            ) : box.end === null ? (
              <>
                <Chip data-tone="plain">{t.until(sayTime(box.expiresAt, now, zone))}</Chip>{" "}
                <Act
                  aria-label={t.close(box.name)}
                  onPress={async () => {
                    if ((await close.run({ letterboxId: box.id })).ok) await read();
                  }}
                >
                  {t.close2}
                </Act>
              </>
            ) : (
              <Chip data-tone="plain">{box.end === "closed" ? t.closed : t.expired}</Chip>
            )}
          </li>
        ))}
      </Lines>
      <Button style={{ marginTop: 10 }} onPress={() => setHanging(true)}>
        {t.createALetterbox}
      </Button>
      {hanging && (
        <Hang
          {...{ nodeId, name, zone }}
          onClose={() => {
            setHanging(false);
            void read();
          }}
        />
      )}
    </section>
  );
}

function Hang({ nodeId, name: folder, zone, onClose }: Omit<Props, "now"> & { onClose: () => void }) {
  const hang = useCommand("access.createLetterbox");
  const { copy, copied } = useCopy();
  const [name, setName] = useState("");
  const [labels, setLabels] = useState("Password");
  const [until, setUntil] = useState(toLocal(soonEnds(zone).at(-1)!.at, zone));
  const [address, setAddress] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  if (address)
    return (
      <Dialog title={t.letterboxFor(name)} open onClose={onClose}>
        <Stack>
          <p>{t.copyTheLinkNowGaltryDoesNot}</p>
          <p className="mono" style={{ overflowWrap: "anywhere" }} data-link>
            {address}
          </p>
          <Row>
            <Button look="go" onPress={() => copy(address)}>
              {copied ? t.copied : t.copyLink}
            </Button>
          </Row>
        </Stack>
      </Dialog>
    );
  return (
    <Dialog title={t.createALetterboxIn(folder)} open onClose={onClose}>
      <Form
        verb={t.createLetterbox}
        running={hang.running}
        onCancel={onClose}
        wrong={hang.wrong() ?? hang.wrong("labels")}
        onSend={async () => {
          const asked = labels
            .split(",")
            .map((one) => one.trim())
            .filter(Boolean);
          const end = fromLocal(until, zone);
          if (end === null) return setWrong(t.chooseAnEndDate);
          const answer = await hang.run({ nodeId, name, labels: asked, until: end });
          if (answer.ok) setAddress(answer.result.address);
        }}
      >
        <p>{t.someoneOutsideSendsAPasswordOr(folder)}</p>
        <TextField
          label={t.nameOfTheEntry}
          value={name}
          onText={setName}
          wrong={hang.wrong("name")}
          hint={t.codeOfTheNewAlarm}
          autoFocus
        />
        <TextField label={t.fields} value={labels} onText={setLabels} hint={t.oneOrSeveralSeparatedByCommas} />
        <MomentField label={t.until2} value={until} onText={setUntil} wrong={wrong ?? hang.wrong("until")} />
      </Form>
    </Dialog>
  );
}

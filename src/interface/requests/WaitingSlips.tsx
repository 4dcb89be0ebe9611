"use client";

import { useState } from "react";
import styled from "styled-components";
import { sayTime } from "@/core/time";
import type { ShownSlip } from "@/server/access/slip/secondOpinions";
import { Beyond, SaidLines } from "../access/SaidLine";
import { useCommand } from "../shared/ask";
import { Act, Button, Row, TextField } from "../shared/controls";
import { Form } from "../shared/Form";
import { Refusal, SayNo } from "./Request";
import { waitingForYou as t } from "./strings";
import type { SideProps, Slips } from "./types";

/** A slip of another steward, as far as it touches what one is steward of oneself. */
export function WaitingSlip({ slip, zone, now, me }: { slip: Slips[number] } & Pick<SideProps, "zone" | "now" | "me">) {
  const answer = useCommand("access.answerSlip");
  const [saying, setSaying] = useState(false);
  const say = (yes: boolean, word = "") => answer.run({ slipId: slip.id, yes, ground: slip.said.ground, word });
  return (
    <>
      <p>
        <b>{slip.by}</b>, {sayTime(slip.at, now, zone)}
        {slip.why && `: “${slip.why}”`}
      </p>
      <Lines>
        <SaidLines lines={slip.said.lines} {...{ zone, now, me }} />
      </Lines>
      <Refusal message={saying ? undefined : answer.refused?.message} />
      <Row style={{ marginTop: 6 }}>
        <Button onPress={() => say(true)} isDisabled={answer.running} aria-label={t.approveTheChangeSlipOf(slip.by)}>
          {t.approve}
        </Button>
        <Act onPress={() => setSaying(true)}>{t.decline}</Act>
      </Row>
      {saying && (
        <SayNo
          title={t.declineTheChangeSlipOf(slip.by)}
          reader={slip.by}
          running={answer.running}
          wrong={answer.wrong}
          send={async (word) => (await say(false, word)).ok}
          onClose={() => setSaying(false)}
        />
      )}
    </>
  );
}

const Lines = styled.ul`
  && li { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 8px; padding: 5px 0; border-top: 1px solid var(--rule); }
  svg { margin-top: 2px; }
  .warning { color: var(--amber); font-weight: 650; }
`;

/** What somebody drafted and shows before it is applied, as far as one is steward oneself. */
export function Shown({ slip, zone, now, me }: { slip: ShownSlip } & Pick<SideProps, "zone" | "now" | "me">) {
  const say = useCommand("access.giveSecondOpinion");
  const [word, setWord] = useState("");
  return (
    <>
      <p>{t.hasDrafted(<b>{slip.by}</b>)}</p>
      <Lines>
        <SaidLines lines={slip.said.lines} {...{ zone, now, me }} />
        <Beyond said={slip.said} />
      </Lines>
      <Form
        verb={t.send}
        running={say.running}
        unready={word.trim() === ""}
        wrong={say.wrong()}
        onSend={() => say.run({ slipId: slip.id, word })}
      >
        <TextField
          label={t.commentFor(slip.by)}
          value={word}
          maxLength={500}
          onText={setWord}
          wrong={say.wrong("word")}
        />
      </Form>
    </>
  );
}

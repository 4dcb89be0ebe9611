"use client";

import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import { levelWord } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import type { endGuest, guestList } from "@/server/access/guests";
import { LinkToHandOver } from "../people/LinkToHandOver";
import { runQuery, useCommand } from "../shared/ask";
import { Act, Button, Chip, ChoiceField, Row, Stack, TextField } from "../shared/controls";
import { MomentField } from "../shared/DateFields";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { fromLocal, toLocal } from "../shared/localTime";
import { guests as t } from "./strings";

export type GuestsView = Awaited<ReturnType<(typeof guestList)["execute"]>>;
type Guest = GuestsView["guests"][number];
type Saw = Awaited<ReturnType<(typeof endGuest)["execute"]>>;

const Lines = styled.ul`
  li { padding: 9px 0; border-top: 1px solid var(--rule); line-height: 20px; overflow-wrap: anywhere; }
  .do { display: flex; flex-wrap: wrap; gap: 4px 14px; margin-top: 4px; }
`;

const TWO_WEEKS = 14 * 86_400_000;
const WEEK = TWO_WEEKS / 2;

interface Props {
  /** As the page came with it; null where it did not. */
  first?: GuestsView | null;
  nodeId: string;
  name: string;
  zone: string;
  now: number;
}

/** People from outside in a folder or entry: asked in with an end, extended in one act, ended with what they saw. */
export function Guests({ first = null, nodeId, name, zone, now }: Props) {
  const [view, setView] = useState(first);
  const [asking, setAsking] = useState(false);
  const [ending, setEnding] = useState<Guest | null>(null);
  const [link, setLink] = useState<{ link: string; name: string } | null>(null);
  const extend = useCommand("access.changeAccess");
  const renew = useCommand("access.renewGuestLink");
  const read = useCallback(async () => {
    const answer = await runQuery("access.guestList", { nodeId });
    if (answer.ok) setView(answer.result);
  }, [nodeId]);
  useEffect(() => {
    if (first) setView(first);
    else void read();
  }, [first, read]);
  if (!view || (view.guests.length === 0 && !view.asksIn)) return null;
  const longer = async ({ grant }: Guest) => {
    const { id: grantId, level, from, until, why } = grant!;
    if ((await extend.run({ grantId, level, from, until: Math.max(until!, now) + TWO_WEEKS, why })).ok) await read();
  };
  return (
    <section aria-label={t.guests} style={{ marginTop: 28 }}>
      <h2 style={{ marginBottom: 6 }}>{t.guests}</h2>
      {view.guests.length === 0 && <p className="soft">{t.noGuestsHereYet}</p>}
      <Lines>
        {view.guests.map((guest) => (
          <li key={guest.id}>
            <b>{guest.name}</b> <span className="soft small">{guest.mail}</span>{" "}
            {guest.standing === "invited" && <Chip data-tone="plain">{t.notJoinedYet}</Chip>}
            <br />
            {guest.grant ? (
              <>
                {levelWord(guest.grant.level)}{" "}
                {guest.grant.until !== null && (
                  <Chip
                    data-tone={guest.grant.until - now < WEEK ? undefined : "plain"}
                    title={exactTime(guest.grant.until, zone)}
                  >
                    {guest.grant.now ? t.until : t.ended} {sayTime(guest.grant.until, now, zone)}
                  </Chip>
                )}
                {guest.grant.why && <span className="small soft"> “{guest.grant.why}”</span>}
              </>
            ) : (
              <span className="soft">{t.onSomethingInIt}</span>
            )}
            <span className="do">
              {guest.grant?.until != null && (
                <Act
                  isDisabled={extend.running}
                  onPress={() => longer(guest)}
                  aria-label={t.extendByTwoWeeks(guest.name)}
                >
                  {t.extendByTwoWeeks2}
                </Act>
              )}
              {guest.standing === "invited" && view.asksIn && (
                <Act
                  onPress={async () => {
                    const answer = await renew.run({ nodeId, personId: guest.id });
                    if (answer.ok) setLink({ link: answer.result.link, name: guest.name });
                  }}
                >
                  {t.newSignInLink}
                </Act>
              )}
              <Act onPress={() => setEnding(guest)} aria-label={t.endTheAccessOf(guest.name)}>
                {t.end}
              </Act>
            </span>
          </li>
        ))}
      </Lines>
      {(extend.refused ?? renew.refused) && (
        <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
          {(extend.refused ?? renew.refused)!.message}
        </p>
      )}
      {view.asksIn && (
        <Button style={{ marginTop: 10 }} onPress={() => setAsking(true)}>
          {t.inviteAGuest}
        </Button>
      )}
      {asking && (
        <AskIn
          {...{ nodeId, name, zone }}
          onClose={() => {
            setAsking(false);
            void read();
          }}
        />
      )}
      {ending && (
        <End
          {...{ nodeId, name }}
          guest={ending}
          onClose={() => {
            setEnding(null);
            void read();
          }}
        />
      )}
      {link && (
        <Dialog title={t.newSignInLinkFor(link.name)} open onClose={() => setLink(null)}>
          <LinkToHandOver {...link} />
        </Dialog>
      )}
    </section>
  );
}

function AskIn({ nodeId, name: node, zone, onClose }: Omit<Props, "now"> & { onClose: () => void }) {
  const ask = useCommand("access.inviteGuest");
  const [name, setName] = useState("");
  const [mail, setMail] = useState("");
  const [level, setLevel] = useState<"use" | "reveal" | "edit">("use");
  const [until, setUntil] = useState(() => `${toLocal(Date.now() + 2 * TWO_WEEKS, zone).slice(0, 10)}T18:00`);
  const [why, setWhy] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [made, setMade] = useState<{ link: string | null; name: string } | null>(null);
  if (made)
    return (
      <Dialog title={t.isInvitedTo(made.name, node)} open onClose={onClose}>
        {made.link ? (
          <LinkToHandOver link={made.link} name={made.name} />
        ) : (
          <Stack>
            <p>{t.isAlreadyAGuestHereAndSigns(made.name)}</p>
            <Row>
              <Button look="go" onPress={onClose}>
                {t.close}
              </Button>
            </Row>
          </Stack>
        )}
      </Dialog>
    );
  return (
    <Dialog title={t.inviteAGuestTo(node)} open onClose={onClose}>
      <Form
        verb={t.invite}
        running={ask.running}
        onCancel={onClose}
        wrong={ask.wrong()}
        onSend={async () => {
          const end = fromLocal(until, zone);
          if (end === null) return setWrong(t.chooseAnEndDate);
          const answer = await ask.run({ nodeId, name, mail, level, until: end, why });
          if (answer.ok) setMade(answer.result);
        }}
      >
        <p>{t.theySetUpTheirOwnSignIn(node)}</p>
        <TextField label={t.name} value={name} onText={setName} wrong={ask.wrong("name")} autoFocus />
        <TextField label={t.emailAddress} type="email" value={mail} onText={setMail} wrong={ask.wrong("mail")} />
        <ChoiceField
          label={t.theyCan}
          value={level}
          onText={(chosen) => setLevel(chosen as typeof level)}
          wrong={ask.wrong("level")}
        >
          <option value="use">{t.useSignInWithoutSeeingA}</option>
          <option value="reveal">{t.revealAlsoRevealAndCopySecret}</option>
          <option value="edit">{t.editAlsoEditItAndAddTo}</option>
        </ChoiceField>
        <MomentField
          label={t.until2}
          value={until}
          onText={setUntil}
          wrong={wrong ?? ask.wrong("until")}
          hint={t.aGuestsAccessAlwaysHasAnEnd}
        />
        <TextField label={t.reason} value={why} maxLength={500} onText={setWhy} wrong={ask.wrong("why")} />
      </Form>
    </Dialog>
  );
}

const listed = (names: readonly string[]) => (names.length === 0 ? "nothing" : names.join(", "));

function End({ nodeId, name, guest, onClose }: Pick<Props, "nodeId" | "name"> & { guest: Guest; onClose: () => void }) {
  const end = useCommand("access.endGuest");
  const [saw, setSaw] = useState<Saw | null>(null);
  if (saw)
    return (
      <Dialog title={t.noLongerHasAccessTo(guest.name, name)} open onClose={onClose}>
        <Stack>
          <p>
            {t.secretFieldsTheySaw(<b>{listed(saw.saw)}</b>, saw.saw.length > 0 && ". Change these at their sites.")}
          </p>
          <p>{t.signedInWith(listed(saw.used))}</p>
          {saw.left && <p className="soft">{t.theyHadAccessToNothingElseSo}</p>}
          <Row>
            <Button look="go" onPress={onClose}>
              {t.close}
            </Button>
          </Row>
        </Stack>
      </Dialog>
    );
  return (
    <Dialog title={t.endTheAccessOfTo(guest.name, name)} open onClose={onClose}>
      <Form
        verb={t.endAccess}
        look="harm"
        running={end.running}
        onCancel={onClose}
        wrong={end.wrong()}
        onSend={async () => {
          const answer = await end.run({ nodeId, personId: guest.id });
          if (answer.ok) setSaw(answer.result);
        }}
      >
        <p>{t.allTheirAccessHereEndsAtOnce(listed(guest.saw), listed(guest.used))}</p>
      </Form>
    </Dialog>
  );
}

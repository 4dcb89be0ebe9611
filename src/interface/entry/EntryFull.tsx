"use client";

import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { atLeast } from "@/core/access/level";
import { exactTime, sayTime } from "@/core/time";
import { runCommand, useCommand } from "../shared/ask";
import { Act, Button, CheckField, Notice, Row, TextArea, TextField } from "../shared/controls";
import { Dialog } from "../shared/Dialog";
import { Form } from "../shared/Form";
import { useLanyard } from "../shared/lanyard";
import { Stamp } from "../shared/Stamp";
import { useCopy } from "../shared/useCopy";
import { SignInNotice, useSignIn } from "../shared/useSignIn";
import { MoveSheet } from "../vaults/MoveSheet";
import { Card, CardPage, CardTitle, capital, Fact, Story } from "./Card";
import { howItWent, WhatYouMayDo } from "./EntryAtUse";
import { EntryForm } from "./EntryForm";
import { FieldFacts } from "./FieldFacts";
import type { EntryView } from "./types";
import { WhoCanDoWhat, type WhoView } from "./WhoCanDoWhat";

/** An entry as who may reveal, edit or steward it sees it: the whole catalogue card. */
export function EntryFull({
  entry,
  who,
  left,
  now,
  edit,
}: {
  entry: EntryView;
  who: WhoView | null;
  left: LeftOpen[];
  now: number;
  edit: boolean;
}) {
  const router = useRouter();
  const { lanyard } = useLanyard();
  const { signing, start, clear } = useSignIn();
  const { copy, copied } = useCopy();
  const restore = useCommand("vaults.restore");
  const once = useCommand("vaults.tryOnceMore");
  const pin = useCommand("frontdesk.pin");
  const [binning, setBinning] = useState(false);
  const [moving, setMoving] = useState(false);
  const [tuning, setTuning] = useState(false);
  useEffect(() => void runCommand("frontdesk.meet", { entryId: entry.id }), [entry.id]);
  const signsIn = entry.signInPage !== "";
  const mayEdit = atLeast(entry.level, "edit") && entry.binnedAt === null;
  const steward = entry.level === "steward";
  const begin = () => void start({ id: entry.id, name: entry.name, site: entry.site });
  if (edit && mayEdit)
    return <EntryForm kind={entry.kind} entry={entry} vaultId={entry.vault.id} parent={entry.vault} />;
  return (
    <CardPage>
      <div>
        <CardTitle>
          <Stamp name={entry.name} large />
          <div>
            <h1>{entry.name}</h1>
            <p className="soft small">{[entry.kind.name, entry.description].filter(Boolean).join(" · ")}</p>
          </div>
          {mayEdit && <Button onPress={() => router.push(`/entry/${entry.id}?edit`)}>Edit</Button>}
          {signsIn && entry.binnedAt === null && (
            <Button look="go" onPress={begin} isDisabled={lanyard?.state !== "connected"}>
              Sign in
            </Button>
          )}
        </CardTitle>
        {entry.binnedAt !== null && (
          <Notice style={{ marginBottom: 16 }}>
            <b>In the bin</b> since {sayTime(entry.binnedAt, now, entry.zone)}. Nobody can use it until it is restored.
            <Row style={{ marginTop: 8 }}>
              <Button onPress={() => restore.run({ entryId: entry.id })}>Restore</Button>
            </Row>
          </Notice>
        )}
        {signsIn && lanyard && lanyard.state !== "connected" && entry.binnedAt === null && (
          <p className="small soft" style={{ marginBottom: 12 }}>
            Signing in needs Lanyard in this browser.{" "}
            <a href={lanyard.state === "absent" ? "/lanyard" : "/lanyard/connect"}>
              {lanyard.state === "absent" ? "Get Lanyard" : "Connect it"}
            </a>
          </p>
        )}
        {entry.refused && (
          <Notice data-tone="bad" style={{ marginBottom: 16 }}>
            <b>The site refused this user name and password.</b> Galtry sends them for nobody until they change.
            {mayEdit && (
              <Row style={{ marginTop: 8 }}>
                <Button onPress={() => once.run({ entryId: entry.id })}>Try once more</Button>
              </Row>
            )}
          </Notice>
        )}
        {signing && (
          <div style={{ marginBottom: 16 }}>
            <SignInNotice signing={signing} stewards={[]} onClose={clear} onAgain={begin} />
          </div>
        )}
        <Card>
          {signsIn && (
            <>
              <Fact
                label="Sign-in page"
                act={
                  <Act onPress={() => copy(entry.signInPage)}>{copied === entry.signInPage ? "Copied" : "Copy"}</Act>
                }
              >
                <span className="mono">{entry.signInPage}</span>
              </Fact>
              <Fact label="Offered at">{entry.reach === "site" ? "the whole site" : "this host only"}</Fact>
            </>
          )}
          <FieldFacts entry={entry} now={now} blanks />
          {signsIn && (
            <Fact
              label="Signing in"
              act={mayEdit ? <Act onPress={() => setTuning(true)}>Sign-in steps</Act> : undefined}
            >
              {howItWent(entry, now)}; guarded fill {entry.guardedFill ? "on" : "off"}
            </Fact>
          )}
          {entry.notes && (
            <Fact label="Notes">
              <span style={{ whiteSpace: "pre-wrap" }}>{entry.notes}</span>
            </Fact>
          )}
          {entry.tags.length > 0 && <Fact label="Tags">{entry.tags.join(", ")}</Fact>}
          {entry.alike.length > 0 && (
            <Fact label="At the same site">
              {entry.alike.map((other) => (
                <span key={other.id} style={{ display: "block" }}>
                  <a href={`/entry/${other.id}`}>{other.name}</a>
                  {other.description && `, ${other.description}`}
                </span>
              ))}
            </Fact>
          )}
          {entry.reveal && (
            <Fact label="Kept since">
              {capital(sayTime(entry.reveal.createdAt, now, entry.zone))}, by {entry.reveal.createdBy}
              {entry.versions && entry.versions.length > 1 && (
                <>
                  ; changed {entry.versions.length - 1} {entry.versions.length === 2 ? "time" : "times"}
                </>
              )}
            </Fact>
          )}
        </Card>
        <Row style={{ marginTop: 16 }}>
          <Button onPress={() => pin.run({ entryId: entry.id, pinned: !entry.pinned })}>
            {entry.pinned ? "Unpin" : "Pin to the Front desk"}
          </Button>
          {mayEdit && <Button onPress={() => setMoving(true)}>Move</Button>}
          {steward && entry.binnedAt === null && (
            <Button look="harm" onPress={() => setBinning(true)}>
              Put in the bin
            </Button>
          )}
        </Row>
        <Story
          title={steward ? "Story" : "What you did here"}
          lines={entry.story}
          own={!steward}
          zone={entry.zone}
          now={now}
        />
      </div>
      <aside>
        {who ? (
          <WhoCanDoWhat nodeId={entry.id} nodeWord="this entry" who={who} zone={entry.zone} now={now} />
        ) : (
          <WhatYouMayDo entry={entry} />
        )}
        {left.length > 0 && <StillSignedIn left={left} site={entry.site} zone={entry.zone} now={now} />}
        {entry.seenBy && <SeenBy seenBy={entry.seenBy} zone={entry.zone} now={now} />}
      </aside>
      {moving && <MoveSheet nodes={[entry]} vaultId={entry.vault.id} onClose={() => setMoving(false)} />}
      <BinDialog entry={entry} open={binning} onClose={() => setBinning(false)} />
      {mayEdit && signsIn && <SigningInDialog entry={entry} open={tuning} onClose={() => setTuning(false)} />}
    </CardPage>
  );
}

/** People whose access has ended and whose session at the site Galtry could not end itself. */
export interface LeftOpen {
  personId: string;
  name: string;
  at: number;
}

function StillSignedIn({ left, site, zone, now }: { left: LeftOpen[]; site: string; zone: string; now: number }) {
  return (
    <section style={{ marginTop: 28, paddingTop: 12, borderTop: "1px solid var(--edge)" }}>
      <h2 style={{ marginBottom: 4 }}>May still be signed in</h2>
      <p>
        Their access has ended and Lanyard removes what it set. A copied session, or a browser that is offline, stays
        signed in at {site} until the site ends it.
      </p>
      <ul>
        {left.map((one) => (
          <li key={one.personId} className="small">
            <b>{one.name}</b>, signed in {sayTime(one.at, now, zone)}
          </li>
        ))}
      </ul>
    </section>
  );
}

function SeenBy({ seenBy, zone, now }: { seenBy: NonNullable<EntryView["seenBy"]>; zone: string; now: number }) {
  return (
    <section style={{ marginTop: 28, paddingTop: 12, borderTop: "1px solid var(--edge)" }}>
      <h2 style={{ marginBottom: 4 }}>Seen by</h2>
      {seenBy.length === 0 ? (
        <p>Nobody has seen the current values.</p>
      ) : (
        <>
          <p>
            <b>{seenBy.length === 1 ? "1 person" : `${seenBy.length} people`}</b> {seenBy.length === 1 ? "has" : "have"}{" "}
            seen the current values:
          </p>
          <ul>
            {seenBy.map((one) => (
              <li key={one.personId} className="small">
                <b>{one.name}</b>, <span title={exactTime(one.at, zone)}>{sayTime(one.at, now, zone)}</span>{" "}
                <span className="soft">{one.how}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function BinDialog({ entry, open, onClose }: { entry: EntryView; open: boolean; onClose: () => void }) {
  const router = useRouter();
  const bin = useCommand("vaults.bin");
  return (
    <Dialog title={`Put ${entry.name} in the bin`} open={open} onClose={onClose}>
      <p>
        Nobody can {entry.signInPage === "" ? "see it" : "sign in with it or see it"} any more, until one of its
        stewards restores it.
        {entry.signInPage !== "" && " Sessions that are open at the site stay open."}
      </p>
      {bin.refused && (
        <Notice data-tone="bad" role="alert" style={{ marginTop: 12 }}>
          {bin.refused.message}
        </Notice>
      )}
      <Row style={{ marginTop: 16 }}>
        <Button
          look="harm"
          isDisabled={bin.running}
          onPress={async () => {
            if ((await bin.run({ entryId: entry.id })).ok) {
              onClose();
              router.push(`/vaults/${entry.vault.id}`);
            }
          }}
        >
          Put in the bin
        </Button>
        <Button onPress={onClose}>Leave it</Button>
      </Row>
    </Dialog>
  );
}

/** Steps are for who may edit; guarded fill and plain http for the steward alone. */
function SigningInDialog({ entry, open, onClose }: { entry: EntryView; open: boolean; onClose: () => void }) {
  const steward = entry.level === "steward";
  const change = useCommand("vaults.changeSigningIn");
  const saveSteps = useCommand("vaults.changeSteps");
  const [guardedFill, setGuardedFill] = useState(entry.guardedFill);
  const [plainHttp, setPlainHttp] = useState(entry.plainHttp);
  const [hosts, setHosts] = useState(entry.steps.hosts.join(", "));
  const [choices, setChoices] = useState(
    Object.entries(entry.steps.choices)
      .map(([name, value]) => `${name}=${value}`)
      .join("\n"),
  );
  const [signOutPage, setSignOutPage] = useState(entry.steps.signOutPage ?? "");
  const save = async () => {
    const steps = {
      hosts: hosts.split(/[\s,]+/).filter(Boolean),
      choices: Object.fromEntries(
        choices
          .split("\n")
          .map((line) => line.trim())
          .filter(Boolean)
          .map((line) => [line.split("=")[0]!.trim(), line.slice(line.indexOf("=") + 1).trim()]),
      ),
      signOutPage: signOutPage.trim() || null,
    };
    if (!(await saveSteps.run({ entryId: entry.id, steps })).ok) return;
    if (steward && !(await change.run({ entryId: entry.id, guardedFill, plainHttp })).ok) return;
    onClose();
  };
  return (
    <Dialog title={`How ${entry.name} is signed in to`} open={open} onClose={onClose}>
      <Form
        verb="Save"
        onSend={save}
        running={change.running || saveSteps.running}
        onCancel={onClose}
        wrong={
          change.refused?.message ??
          (saveSteps.refused?.field?.startsWith("steps.") ? null : saveSteps.refused?.message)
        }
      >
        <p>
          Galtry signs in to the site itself and hands the colleague’s browser the finished session. The password is not
          sent to that browser.
        </p>
        <TextField
          label="Other hosts it passes through"
          className="mono"
          value={hosts}
          onText={setHosts}
          wrong={saveSteps.wrong("steps.hosts")}
          hint="only the entry’s own site is called otherwise; separated by commas"
        />
        <TextArea
          label="What it chooses"
          className="mono"
          rows={2}
          value={choices}
          onText={setChoices}
          wrong={saveSteps.wrong("steps.choices")}
          hint="one a line: name of the page’s field = value, such as branch=harbour"
        />
        <TextField
          label="Page that signs out"
          className="mono"
          value={signOutPage}
          onText={setSignOutPage}
          wrong={saveSteps.wrong("steps.signOutPage")}
          hint="visited by Galtry when somebody’s access ends; empty: none"
        />
        {steward && (
          <>
            <CheckField
              checked={guardedFill}
              onTick={setGuardedFill}
              label={<b>Allow guarded fill as well</b>}
              hint="For sites where a sealed sign-in cannot work. Lanyard types the password into the page and sends it at once. Somebody with developer tools can see it then; whoever uses it counts among those who have seen it."
            />
            <CheckField
              checked={plainHttp}
              onTick={setPlainHttp}
              label={<b>This site has no https: send the password over plain http</b>}
              hint="Anybody on the way between Galtry and the site can read it."
            />
          </>
        )}
      </Form>
    </Dialog>
  );
}

/** Lanyard's window: what is for this page first and large, the rest as lines; every state has its face. */
import { type ReactNode, useCallback, useEffect, useMemo, useState } from "react";
import { createRoot } from "react-dom/client";
import { find, prepare } from "../../src/core/finder";
import { hostOf } from "../../src/core/signin/address";
import { FAILURES, PROGRESS, sayWaitingFor } from "../../src/core/signin/outcome";
import type { KeyLine } from "../../src/server/lanyard/keys";
import type { View } from "../shared/messages";
import { ask } from "./ask";
import { ChangingByHand } from "./ChangingByHand";
import { CodesAsked } from "./CodesAsked";
import { CreatePassword, useNewPasswordPlace } from "./CreatePassword";
import { EntriesForForm } from "./EntriesForForm";
import { FillingButton } from "./FillingButton";
import { Settings } from "./Settings";
import { Stamp } from "./Stamp";
import { createPassword as newPassword, main as t } from "./strings";
import { Tick } from "./Tick";

const givenTab = Number(new URLSearchParams(location.search).get("tab")) || null;

function useView(): [View | null, () => void] {
  const [view, setView] = useState<View | null>(null);
  const look = useCallback(
    () => void ask<View>({ ask: "view", tabId: givenTab }).then((found) => found && setView(found)),
    [],
  );
  useEffect(() => {
    look();
    const listener = (message: { tell?: string }) => {
      if (message?.tell === "changed") look();
    };
    chrome.runtime.onMessage.addListener(listener);
    const timer = setInterval(look, 1000);
    return () => {
      chrome.runtime.onMessage.removeListener(listener);
      clearInterval(timer);
    };
  }, [look]);
  return [view, look];
}

function Tag({ children }: { children: ReactNode }) {
  return (
    <div className="tag">
      <span className="cord" />
      <div className="face">
        <span className="ring" />
        {children}
      </div>
    </div>
  );
}

function Window() {
  const [view, look] = useView();
  const [settings, setSettings] = useState(false);
  if (!view) return null;
  const { connection } = view;
  return (
    <>
      <div className="bar">
        {connection.address ? (
          <a className="wordmark" href={connection.address} target="_blank" rel="noreferrer">
            {t.galtry}
          </a>
        ) : (
          <span className="wordmark">{t.galtry}</span>
        )}
        {connection.state === "connected" && (view.keys?.notices ?? 0) > 0 && (
          <a
            className="small"
            href={new URL("/account#notices", connection.address).href}
            target="_blank"
            rel="noreferrer"
          >
            {t.notices(view.keys!.notices)}
          </a>
        )}
        {connection.state === "connected" && (
          <button type="button" className="quiet" aria-expanded={settings} onClick={() => setSettings(!settings)}>
            {connection.person}
          </button>
        )}
      </div>
      <Tag>
        {connection.state === "connected" && !settings && <CodesAsked view={view} look={look} />}
        {connection.state === "connected" && !settings && view.changing && (
          <ChangingByHand changing={view.changing} tabId={view.tab!.id} look={look} />
        )}
        {connection.state === "none" && <NotConnected view={view} look={look} />}
        {connection.state === "connecting" && <Connecting view={view} look={look} />}
        {connection.state === "connected" &&
          (settings ? (
            <Settings view={view} close={() => setSettings(false)} look={look} />
          ) : view.signing ? (
            <Signing view={view} look={look} />
          ) : !view.reachable ? (
            <Offline view={view} look={look} />
          ) : view.keys && !view.keys.mayUse ? (
            <>
              <p className="lead">{t.theHouseRulesSayNo}</p>
              <p>{t.anOwnerCanChangeThat}</p>
            </>
          ) : view.alike ? (
            <Alike view={view} />
          ) : (
            <Keys view={view} look={look} />
          ))}
      </Tag>
    </>
  );
}

function NotConnected({ view, look }: { view: View; look: () => void }) {
  const connection = view.connection as Extract<View["connection"], { state: "none" }>;
  const [address, setAddress] = useState(view.onlyAddress ?? view.tab?.galtry ?? connection.address ?? "");
  const [wrong, setWrong] = useState<string | null>(null);
  const connect = async () => {
    let whole: URL;
    try {
      whole = new URL(/^https?:/.test(address) ? address : `https://${address}`);
    } catch {
      return setWrong(t.thereIsNoGaltryAtThisAddress);
    }
    const answer = await ask<{ wrong?: string } | null>({ ask: "connect", address: whole.origin });
    if (answer?.wrong) setWrong(answer.wrong);
    else look();
  };
  const { ended } = connection;
  return (
    <>
      <p className="lead">{t.notConnectedToGaltry}</p>
      {ended && (
        <p>
          {ended.by ? t.disconnectedLanyardInThis(ended.by) : t.lanyardWasDisconnectedInThis}
          {ended.at
            ? t.on(new Date(ended.at).toLocaleString("en-GB", { weekday: "long", hour: "2-digit", minute: "2-digit" }))
            : ""}
          {ended.why ? `: “${ended.why}”` : "."}
        </p>
      )}
      {view.tab?.galtry ? (
        <p>{t.thisPageSaysItIsTheGaltry(<span className="mono">{hostOf(view.tab.galtry)}</span>)}</p>
      ) : (
        <p className="small soft">{t.connectLanyardAgainToSignIn}</p>
      )}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void connect();
        }}
      >
        <label className="small" htmlFor="address">
          {t.addressOfYourGaltry}
        </label>
        <input
          id="address"
          className="field mono"
          value={address}
          onChange={(event) => setAddress(event.target.value)}
          readOnly={view.onlyAddress !== null}
          spellCheck={false}
          autoCapitalize="none"
          placeholder="https://galtry.your-organisation.example"
        />
        {view.onlyAddress !== null && <p className="small soft">{t.setByTheOrganisation}</p>}
        {wrong && (
          <p className="small bad" role="alert">
            {wrong}
          </p>
        )}
        <div className="do">
          <button className="btn go" type="submit">
            {t.connect}
          </button>
        </div>
      </form>
    </>
  );
}

function Connecting({ view, look }: { view: View; look: () => void }) {
  const connection = view.connection as Extract<View["connection"], { state: "connecting" }>;
  const minutes = Math.max(0, Math.ceil((connection.until - Date.now()) / 60_000));
  return (
    <>
      <p className="lead">{t.doesGaltryShowThisCode}</p>
      <p className="pair">{connection.userCode}</p>
      <p>{t.galtryHasOpenedInATabConfirm}</p>
      <p className="small soft">{t.validFor(minutes)}</p>
      <div className="do">
        <button type="button" className="btn" onClick={() => void ask({ ask: "open-connect-page" })}>
          {t.openTheTabAgain}
        </button>
        <button type="button" className="quiet" onClick={() => void ask({ ask: "stop-connecting" }).then(look)}>
          {t.stop}
        </button>
      </div>
    </>
  );
}

function Offline({ view, look }: { view: View; look: () => void }) {
  return (
    <>
      <p className="lead">{t.galtryIsNotResponding}</p>
      <p>
        {t.lanyardKeepsTrying(
          view.lastReached
            ? t.lastReachedAt(
                new Date(view.lastReached).toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit" }),
              )
            : "",
        )}
      </p>
      <p className="small soft">{t.youCannotSignInWithGaltrys}</p>
      <div className="do">
        <button type="button" className="btn" onClick={() => void ask({ ask: "try-now" }).then(look)}>
          {t.tryAgainNow}
        </button>
      </div>
    </>
  );
}

function Alike({ view }: { view: View }) {
  const { here, kept } = view.alike!;
  return (
    <>
      <p className="lead bad">{t.thisIsNot(kept.name)}</p>
      <dl className="hosts">
        <dt>{t.youAreAt}</dt>
        <dd>{here}</dd>
        <dt>{t.yourLoginIsFor}</dt>
        <dd>{kept.site}</dd>
      </dl>
      <p>{t.lanyardDoesNothingHereIf}</p>
      <div className="do">
        <button type="button" className="btn go" onClick={() => void chrome.tabs.create({ url: kept.signInPage })}>
          {t.goTo(kept.site)}
        </button>
      </div>
    </>
  );
}

function Signing({ view, look }: { view: View; look: () => void }) {
  const { signing, keys, tab } = view;
  if (!signing) return null;
  const close = () => void ask({ ask: "close-report" }).then(look);
  const key = keys?.keys.find((one) => one.id === signing.entryId);
  if (signing.asking)
    return (
      <>
        <p className="lead">{t.youAreAlreadySignedInAt(signing.site)}</p>
        <p>{t.thisBrowserHasCookiesOfThat(signing.site, signing.name)}</p>
        <div className="do">
          <button
            type="button"
            className="btn go"
            onClick={() => {
              void ask({ ask: "sign-in", entryId: signing.entryId, replace: true }).then(look);
              look();
            }}
          >
            {t.replaceSession}
          </button>
          <button type="button" className="btn" onClick={close}>
            {t.renewSession}
          </button>
        </div>
      </>
    );
  if (!signing.report)
    return (
      <>
        <p className="lead">{t.signingInTo(signing.name)}</p>
        <ol className="steps">
          {signing.steps.length === 0 ? (
            <li>{t.opening(signing.site)}</li>
          ) : (
            signing.steps.map((step) => (
              <li key={step}>
                {step === "code-asked" && signing.waitsFor ? sayWaitingFor(signing.waitsFor) : PROGRESS[step]}
              </li>
            ))
          )}
        </ol>
      </>
    );
  const { outcome, message, detail } = signing.report;
  if (outcome === "signed-in")
    return (
      <>
        <p className="lead">{t.signedInTo(signing.name)}</p>
        <p>{t.itIsOpenInItsOwnTab}</p>
        <div className="do">
          <button type="button" className="btn" onClick={close}>
            {t.close}
          </button>
        </div>
      </>
    );
  const failure = outcome === "refused" || outcome === "asked-first" ? null : FAILURES[outcome];
  const guardedFill = key?.guardedFill && failure?.next === "guarded-fill";
  return (
    <>
      <p className="lead bad">{failure ? `${signing.name} ${failure.title}` : t.notSignedInTo(signing.name)}</p>
      <p>{failure?.says ?? message}</p>
      {detail && <p className="small soft">{t.details(detail)}</p>}
      {guardedFill && key && (
        <p className="small soft">
          {outcome === "http-basic" ? t.withGuardedFillLanyardAnswers : t.withGuardedFillLanyardTypesThe}
        </p>
      )}
      <div className="do">
        {guardedFill &&
          key &&
          tab &&
          (outcome === "http-basic" ? (
            <FillingButton label={t.openAndAnswer} message={{ ask: "answer-basic", entryId: key.id }} look={look} />
          ) : (
            <FillButton entryKey={key} tab={tab} look={look} />
          ))}
        {failure?.next === "open-page" && key && (
          <button type="button" className="btn go" onClick={() => void chrome.tabs.create({ url: key.signInPage })}>
            {t.openThePage}
          </button>
        )}
        <button type="button" className="quiet" onClick={close}>
          {t.close}
        </button>
      </div>
    </>
  );
}

function FillButton({ entryKey, tab, look }: { entryKey: KeyLine; tab: NonNullable<View["tab"]>; look: () => void }) {
  if (hostOf(tab.url) !== hostOf(entryKey.signInPage))
    return (
      <button type="button" className="btn go" onClick={() => void chrome.tabs.create({ url: entryKey.signInPage })}>
        {t.openThePageAndFill}
      </button>
    );
  const message = { ask: "guarded-fill" as const, entryId: entryKey.id, tabId: givenTab ?? tab.id };
  return <FillingButton label={t.fillAndSignIn} {...{ message, look }} />;
}

/** Where the house rules allow it. */
function OnOpening({ entryId, view, look }: { entryId: string; view: View; look: () => void }) {
  const { onOpening } = view.choices;
  return (
    <Tick
      ticked={onOpening.includes(entryId)}
      onTick={(ticked) => {
        const others = onOpening.filter((one) => one !== entryId);
        void ask({ ask: "choose", choices: { onOpening: ticked ? [...others, entryId] : others } }).then(look);
      }}
    >
      {t.fillInWhenItOpens}
    </Tick>
  );
}

function Keys({ view, look }: { view: View; look: () => void }) {
  const { forPage, keys, tab, chosen } = view;
  const [typed, setTyped] = useState("");
  const [creating, setCreating] = useState(false);
  const pageId = givenTab ?? tab?.id ?? null;
  const place = useNewPasswordPlace(tab && /^https?:/.test(tab.url) ? pageId : null);
  const ordered = useMemo(
    () => [...forPage].sort((a, b) => Number(b.id === chosen) - Number(a.id === chosen)),
    [forPage, chosen],
  );
  const first = ordered[0] ?? keys?.keys.find((key) => key.id === chosen);
  const index = useMemo(
    () => prepare((keys?.keys ?? []).map((key) => ({ ...key, tags: [], kind: "", pinned: false }))),
    [keys],
  );
  const lately = useMemo(
    () =>
      (keys?.keys ?? [])
        .filter((key) => key.lastUsedAt !== null && !forPage.some((one) => one.id === key.id))
        .sort((a, b) => b.lastUsedAt! - a.lastUsedAt!)
        .slice(0, 3),
    [keys, forPage],
  );
  const found = typed.trim() ? find(index, typed, 6) : lately;
  const here = tab && /^https?:/.test(tab.url) ? new URL(tab.url).hostname : null;
  const signIn = (key: KeyLine) => {
    void ask({ ask: "sign-in", entryId: key.id, replace: false }).then(look);
    setTimeout(look, 60);
  };
  return (
    <>
      {here && (
        <h2>{t.youAreAt2(<span className="mono">{here}</span>, forPage.length > 0 && t.logins(forPage.length))}</h2>
      )}
      {pageId !== null && here && <EntriesForForm key={tab!.url} tabId={pageId} />}
      {place.on !== null && !view.changing && <CreatePassword key={place.rules} place={place} tabId={pageId} />}
      {first ? (
        <div className="first">
          <div className="it">
            <Stamp name={first.name} large />
            <div>
              <h3>{first.name}</h3>
              <p className="small soft">{first.description}</p>
            </div>
          </div>
          <p className="small" style={{ marginTop: 8 }}>
            {t.from(first.hasCode ? t.sealedSignInWithCode : t.sealedSignIn, first.vault)}{" "}
            {view.connection.address && (
              <a
                href={new URL(`/entry/${first.id}`, view.connection.address).href}
                style={{ whiteSpace: "nowrap" }}
                target="_blank"
                rel="noreferrer"
              >
                {t.openInGaltry}
              </a>
            )}
          </p>
          <button type="button" className="btn go big" autoFocus onClick={() => signIn(first)}>
            {t.signIn}
          </button>
          {first.guardedFill && tab && hostOf(tab.url) === hostOf(first.signInPage) && (
            <>
              <FillButton entryKey={first} tab={tab} look={look} />
              {keys?.fillsOnOpening && <OnOpening entryId={first.id} view={view} look={look} />}
            </>
          )}
        </div>
      ) : (
        here && (
          <>
            <p style={{ margin: "8px 0 12px" }}>{t.signInWithOneYouKnowAnd(<b>{t.noLoginForThisPage}</b>)}</p>
            <AskForSite key={here} page={tab!.url} here={here} />
          </>
        )
      )}
      {ordered.slice(1).map((key) => (
        <KeyRow key={key.id} line={key} note={key.description} signIn={signIn} />
      ))}
      <div className="ruled">
        <input
          className="field"
          aria-label={t.findAnotherLogin}
          placeholder={t.findAnotherLogin}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && typed.trim() && found[0]) signIn(found[0] as KeyLine);
          }}
        />
      </div>
      {found.map((key) => (
        <KeyRow key={key.id} line={key as KeyLine} note={key.site} signIn={signIn} />
      ))}
      {typed.trim() && found.length === 0 && <p className="small soft">{t.noneOfYourLoginsMatches}</p>}
      {place.on === null &&
        !view.changing &&
        (creating ? (
          <CreatePassword place={place} tabId={pageId} />
        ) : (
          <div className="ruled">
            <button type="button" className="quiet" onClick={() => setCreating(true)}>
              {newPassword.createAPassword}
            </button>
          </div>
        ))}
    </>
  );
}

/** "Is there a login for this site?": the answer comes from whoever looks after one, if anybody does. */
function AskForSite({ page, here }: { page: string; here: string }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  if (asked)
    return (
      <p className="small" role="status">
        {t.requestSentIfThereIsALogin(here)}
      </p>
    );
  if (!open)
    return (
      <button type="button" className="btn" onClick={() => setOpen(true)}>
        {t.requestALoginForThisSite}
      </button>
    );
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void ask<string | null>({ ask: "ask-for-site", page, why }).then((refused) => {
          setWrong(refused);
          setAsked(refused === null);
        });
      }}
    >
      <label className="small" htmlFor="why">
        {t.reason}
      </label>
      <input
        id="why"
        className="field"
        value={why}
        maxLength={500}
        autoFocus
        onChange={(event) => setWhy(event.target.value)}
      />
      {wrong && (
        <p className="small bad" role="alert">
          {wrong}
        </p>
      )}
      <div className="do">
        <button type="submit" className="btn go" disabled={why.trim() === ""}>
          {t.sendRequest}
        </button>
      </div>
    </form>
  );
}

function KeyRow({ line, note, signIn }: { line: KeyLine; note: string; signIn: (key: KeyLine) => void }) {
  return (
    <div className="line">
      <Stamp name={line.name} />
      <span className="small">
        <b>{line.name}</b>
        <span className="soft">{note}</span>
      </span>
      <button type="button" className="quiet" aria-label={t.signInTo(line.name)} onClick={() => signIn(line)}>
        {t.signIn}
      </button>
    </div>
  );
}

createRoot(document.getElementById("window")!).render(<Window />);

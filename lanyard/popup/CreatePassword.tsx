/** A password created to the page's own rules, for its fields or for the clipboard; it is stored nowhere until it is added. */
import { useEffect, useState } from "react";
import { createdPassword } from "../../src/core/generator/createdPassword";
import type { NewPasswordPlace } from "../shared/messages";
import { ask } from "./ask";
import { createPassword as t } from "./strings";

const NO_PLACE: NewPasswordPlace = { on: null, rules: "", fields: 0 };

/** What the page in front asks of a new password, looked at again with the window. */
export function useNewPasswordPlace(tabId: number | null): NewPasswordPlace {
  const [place, setPlace] = useState(NO_PLACE);
  useEffect(() => {
    if (tabId === null) return setPlace(NO_PLACE);
    let over = false;
    const look = () =>
      void ask<NewPasswordPlace>({ ask: "new-password-place", tabId }).then((found) => {
        if (!over && found) setPlace((now) => (JSON.stringify(now) === JSON.stringify(found) ? now : found));
      });
    look();
    const timer = setInterval(look, 2000);
    return () => {
      over = true;
      clearInterval(timer);
    };
  }, [tabId]);
  return place;
}

export function CreatePassword({ place, tabId }: { place: NewPasswordPlace; tabId: number | null }) {
  const [text, setText] = useState(() => createdPassword(place.rules));
  const [says, setSays] = useState("");
  const another = () => {
    setText(createdPassword(place.rules));
    setSays("");
  };
  return (
    <section className="ruled" aria-label={t.newPassword}>
      <h2>{t.newPassword}</h2>
      <p className="created mono">{text}</p>
      <p className="small soft">
        {place.rules === "" ? t.characters([...text].length) : t.charactersByRules([...text].length)}
        {place.on === "register" && ` ${t.thenLanyardOffersToAdd}`}
        {place.on === "change-password" && ` ${t.thenLanyardOffersToSave}`}
      </p>
      <div className="do">
        {place.fields > 0 && tabId !== null && (
          <button
            type="button"
            className="btn go"
            onClick={() =>
              void ask<number>({ ask: "fill-new-password", tabId, password: text }).then((fields) =>
                setSays(fields > 0 ? t.filledIn(fields) : t.thePageHasChanged),
              )
            }
          >
            {t.fillIn}
          </button>
        )}
        <button
          type="button"
          className="btn"
          onClick={() =>
            void navigator.clipboard.writeText(text).then(
              () => setSays(t.copied),
              () => setSays(t.couldNotBeCopied),
            )
          }
        >
          {t.copy}
        </button>
        <button type="button" className="quiet" onClick={another}>
          {t.createAnother}
        </button>
      </div>
      <p className="small" role="status">
        {says}
      </p>
    </section>
  );
}

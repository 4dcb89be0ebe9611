import { Page } from "../frame/Frame";
import { ended as t } from "./strings";

/** For whoever could sign in here and cannot any more: why, and what is gone with it. Not what it was: that may have changed. */
export function Ended({ says }: { says: string }) {
  return (
    <Page where={t.youNoLongerHaveAccessToThis}>
      <h1>{t.yourAccessHasEnded}</h1>
      <p style={{ margin: "12px 0", maxWidth: "60ch" }}>{t.lanyardRemovesWhatItSetForThe(says)}</p>
      <p style={{ maxWidth: "60ch" }}>{t.ifYouStillNeedItAskThe(<a href="/">{t.frontDesk}</a>)}</p>
    </Page>
  );
}

import { Page } from "../frame/Frame";

/** For whoever could sign in here and cannot any more: why, and what is gone with it. Not what it was: that may have changed. */
export function Ended({ says }: { says: string }) {
  return (
    <Page where="You could sign in with this. You cannot any more.">
      <h1>Your access here has ended</h1>
      <p style={{ margin: "12px 0", maxWidth: "60ch" }}>
        {says} What Lanyard had set for the site in your browser goes with it.
      </p>
      <p style={{ maxWidth: "60ch" }}>
        Do you still need it? Ask whoever gave it to you. Everything else is at the <a href="/">Front desk</a>.
      </p>
    </Page>
  );
}

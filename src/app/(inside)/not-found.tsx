import { Page } from "@/interface/frame/Frame";

export default function NotFound() {
  return (
    <Page where="You are nowhere in particular.">
      <h1>There is nothing here that you can open</h1>
      <p style={{ margin: "12px 0", maxWidth: "60ch" }}>
        Either it does not exist, or your access to it has ended. Go back to the <a href="/">Front desk</a>, or ask the
        colleague who told you of it.
      </p>
    </Page>
  );
}

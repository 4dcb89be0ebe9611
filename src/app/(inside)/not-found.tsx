import { Page } from "@/interface/frame/Frame";

export default function NotFound() {
  return (
    <Page where="Page not found.">
      <h1>Page not found</h1>
      <p style={{ margin: "12px 0", maxWidth: "60ch" }}>
        It does not exist, or you have no access to it. Go to the <a href="/">Front desk</a>, or ask the colleague who
        sent you here.
      </p>
    </Page>
  );
}

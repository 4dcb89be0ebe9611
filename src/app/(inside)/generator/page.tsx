import { Page } from "@/interface/frame/Frame";
import { MakePassword } from "@/interface/passwords/MakePassword";
import { me } from "@/server/page";

export const metadata = { title: "Password generator" };

export default async function MakePage() {
  await me();
  return (
    <Page where="Created in this browser: nothing is sent or saved until you use it.">
      <h1 style={{ marginBottom: 20 }}>Password generator</h1>
      <div style={{ maxWidth: 620 }}>
        <MakePassword />
      </div>
    </Page>
  );
}

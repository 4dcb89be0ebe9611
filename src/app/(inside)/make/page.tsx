import { Page } from "@/interface/frame/Frame";
import { MakePassword } from "@/interface/passwords/MakePassword";
import { me } from "@/server/page";

export const metadata = { title: "Make a password" };

export default async function MakePage() {
  await me();
  return (
    <Page where="Made in this browser: nothing is sent, and nothing is kept until you put it somewhere.">
      <h1 style={{ marginBottom: 20 }}>Make a password</h1>
      <div style={{ maxWidth: 620 }}>
        <MakePassword />
      </div>
    </Page>
  );
}

"use client";

import { usePathname, useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { Dialog } from "../shared/Dialog";
import { PasswordDialog } from "../shared/PasswordDialog";
import { SecondStepForm } from "../shared/SecondStepForm";
import { askWith, noteTyped } from "../shared/signedOut";
import { useSigningIn } from "../shared/useSigningIn";
import { signInAgain as t } from "./strings";

/** Over a page whose session has ended while something was typed: nothing behind it is seen, and nothing is lost. */
export function SignInAgain({ personId, mail }: { personId: string; mail: string }) {
  const router = useRouter();
  const [open, setOpen] = useState(false);
  const path = usePathname();
  useEffect(() => noteTyped(false), [path]);
  const settle = useRef<((signedIn: boolean) => void) | null>(null);
  useEffect(() => {
    askWith(
      () =>
        new Promise((done) => {
          settle.current = done;
          setOpen(true);
        }),
    );
    const typing = ({ target }: Event) => {
      if ((target as HTMLElement | null)?.closest("form")) noteTyped(true);
    };
    document.addEventListener("input", typing);
    return () => {
      askWith(null);
      document.removeEventListener("input", typing);
    };
  }, []);
  const close = (signedIn: boolean) => {
    setOpen(false);
    settle.current?.(signedIn);
    settle.current = null;
  };
  const giveUp = () => {
    close(false);
    router.refresh();
  };
  const signing = useSigningIn((entered) => {
    if (entered === personId) return close(true);
    // A passkey of somebody else: what was typed is not theirs to send, and this page stays covered until it is left.
    settle.current?.(false);
    settle.current = null;
    location.assign("/");
  });
  if (!open) return null;
  if (signing.second)
    return (
      <Dialog title={t.secondStep} open onClose={() => undefined} cover>
        <SecondStepForm signing={signing} />
      </Dialog>
    );
  return (
    <PasswordDialog
      title={t.yourSessionHasEnded}
      verb={t.signIn}
      send={(password) => signing.withPassword(mail, password).then(() => null)}
      wrong={signing.wrong?.message ?? null}
      others={[{ word: t.useAPasskey, use: () => signing.withPasskey().then(() => null) }]}
      onCancel={giveUp}
      cover
    >
      {t.signInToContinue(mail)}
    </PasswordDialog>
  );
}

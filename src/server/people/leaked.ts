/** Sign-in passwords that are on the list of leaked ones are not taken (NIST SP 800-63B-4, section 3.1.1.2). */
import type { Galtry } from "../galtry";
import { failed } from "../log";
import { Refused } from "../refused";
import { timesLeaked } from "../timesLeaked";
import { hashPassword } from "./password";
import { password as t } from "./strings";

/**
 * Where no list is set up, or it does not answer, the password is taken: nobody is shut out because of it.
 * @throws Refused bad-input at `field` for a password on the list
 */
export async function refuseLeaked(
  app: Pick<Galtry, "configuration">,
  password: string,
  field = "password",
): Promise<void> {
  const list = app.configuration.leakedPasswords;
  if (!list) return;
  const times = await timesLeaked(list, password).catch((error: unknown) => {
    failed("leaked-passwords", error);
    return 0;
  });
  if (times > 0) throw new Refused("bad-input", t.itIsOnAList, field);
}

/** The hash of a sign-in password that may be taken. @throws Refused bad-input */
export async function newPassword(app: Pick<Galtry, "configuration">, password: string): Promise<string> {
  await refuseLeaked(app, password);
  return hashPassword(password);
}

import { providerBack as t } from "./strings";

/** What is said of a sign-in at the identity provider that came to nothing, by its code; in general for any other. */
export const sayBack = (code: string, provider: string = t.theProvider): string => {
  const says = Object.hasOwn(t, code) ? t[code as keyof typeof t] : t.failed;
  return typeof says === "string" ? t.failed(provider) : says(provider);
};

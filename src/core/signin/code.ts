/** One-time codes by time (TOTP, RFC 6238). */
import { Secret, TOTP, URI } from "otpauth";

export interface CodeSettings {
  /** Base32, RFC 4648. */
  secret: string;
  digits: number;
  /** Seconds. */
  period: number;
  algorithm: "SHA1" | "SHA256" | "SHA512";
}

/**
 * Reads what a person pasted: an `otpauth://totp/` address or a bare base32 secret.
 * @throws RangeError with a sentence for the person
 */
export function readCodeSettings(typed: string): CodeSettings {
  const text = typed.trim();
  if (/^otpauth:/i.test(text)) {
    try {
      const read = URI.parse(text);
      if (!(read instanceof TOTP))
        throw new RangeError("This is a counter-based code. Galtry supports only time-based codes.");
      return checked({
        secret: read.secret.base32,
        digits: read.digits,
        period: read.period,
        algorithm: read.algorithm as CodeSettings["algorithm"],
      });
    } catch (error) {
      if (error instanceof RangeError) throw error;
      throw new RangeError("This otpauth address is not valid.");
    }
  }
  const secret = text.replace(/[\s-]/g, "").toUpperCase().replace(/=+$/, "");
  if (!/^[A-Z2-7]{8,}$/.test(secret))
    throw new RangeError("The secret key of a code has letters A to Z and digits 2 to 7, at least eight of them.");
  return checked({ secret, digits: 6, period: 30, algorithm: "SHA1" });
}

function checked(settings: CodeSettings): CodeSettings {
  if (settings.digits < 6 || settings.digits > 8) throw new RangeError("A code has six to eight digits.");
  if (settings.period < 5 || settings.period > 300) throw new RangeError("A code lasts five seconds to five minutes.");
  if (!["SHA1", "SHA256", "SHA512"].includes(settings.algorithm))
    throw new RangeError("Galtry does not support this type of code.");
  return settings;
}

const totpOf = (settings: CodeSettings) =>
  new TOTP({
    secret: Secret.fromBase32(settings.secret),
    digits: settings.digits,
    period: settings.period,
    algorithm: settings.algorithm,
  });

/** The code at a moment (milliseconds), the one after it, which step it belongs to, how long it holds (milliseconds). */
export function codeAt(
  settings: CodeSettings,
  at: number,
): { code: string; next: string; step: number; leftMs: number } {
  const totp = totpOf(settings);
  const length = settings.period * 1000;
  const step = Math.floor(at / length);
  return {
    code: totp.generate({ timestamp: at }),
    next: totp.generate({ timestamp: at + length }),
    step,
    leftMs: (step + 1) * length - at,
  };
}

/** The otpauth address that other programs read. */
export function codeAddress(settings: CodeSettings, label: string, issuer = ""): string {
  const totp = totpOf(settings);
  totp.label = label || "code";
  totp.issuer = issuer;
  return totp.toString();
}

/** What looks like a sign-in and may be none: it is read as uncertain or as nothing, and never acted on. */
import { describe, expect, test } from "vitest";
import { readHtml } from "./htmlPage";

const read = (body: string, title = "") =>
  readHtml(
    `<!doctype html><html><head><title>${title}</title></head><body>${body}</body></html>`,
    "https://page.example/",
  );
const SIGNS = ["sign-in", "identifier-first", "password-only-step"];

describe("never a wrong form", () => {
  test.each<[string, string]>([
    [
      "a camera to look for",
      '<h2>Probe a camera</h2><form><label>Host <input name="host"></label><label>Username <input name="user"></label><label>Password <input type="password" name="pass"></label><button>Next</button></form>',
    ],
    [
      "a replica to add",
      '<h1>Add replica user</h1><form method="post"><label>User name: <input name="username"></label><label>Password: <input type="password" name="pw"></label><label>Host: <input name="hostname"></label><button>Go</button></form>',
    ],
    [
      "a mail account to fetch from",
      '<h3>Remote accounts</h3><div><label>E-mail <input name="remote_email"></label><label>Password <input type="password" name="remote_password"></label><label>Label <input name="remote_label"></label><select><option>Secure</option></select><button>Save</button></div>',
    ],
    [
      "a network to join",
      '<form><label>SSID <input name="ssid" value="quill"></label><label>WPA password <input type="password" name="psk"></label><button>Apply</button></form>',
    ],
    [
      "a proxy",
      '<form><h2>Proxy</h2><label>Server <input name="proxy"></label><label>Port <input name="port"></label><label>User <input name="u"></label><label>Password <input type="password" name="p"></label><button>OK</button></form>',
    ],
    [
      "a gift card",
      '<form><h2>Check your balance</h2><label>Card number <input name="card"></label><label>PIN <input type="password" maxlength="4" name="pin"></label><button>Check balance</button></form>',
    ],
    [
      "a backup to encrypt",
      '<form><h2>Backup</h2><label>File name <input name="file" value="backup.zip"></label><label>Password <input type="password" name="pw"></label><button>Create backup</button></form>',
    ],
    [
      "a person to add",
      '<form><h2>Add user</h2><label>Username <input name="new_user"></label><label>Password <input type="password" name="new_pass"></label><select name="role"><option>Editor</option></select><button>Add user</button></form>',
    ],
    [
      "an account to close",
      '<form><h2>Delete your account</h2><p>This cannot be undone.</p><label>Your password <input type="password" name="password"></label><button>Delete account</button></form>',
    ],
  ])("%s", (_, body) => expect(SIGNS).not.toContain(read(body).kind));

  test("what is certain says how certain, and what is uncertain names what it would have used", () => {
    const sure = read(
      '<h1>Sign in</h1><form method="post"><label>User name <input name="u"></label><label>Password <input type="password" name="p"></label><label><input type="checkbox"> Remember me</label><button>Sign in</button></form>',
    );
    expect(sure.kind).toBe("sign-in");
    expect(sure.confidence).toBeGreaterThan(0.95);
    const perhaps = read('<form><input name="a"><input type="password" name="b"><button>→</button></form>');
    expect(["unsure", "sign-in"]).toContain(perhaps.kind);
    expect(perhaps.confidence).toBeLessThan(sure.confidence);
    expect(perhaps.password).toBe('input[name="b"]');
  });
});

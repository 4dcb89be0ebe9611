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

  test("a window that scripts draw has its button beside the form; a widget's ornaments are no fields", () => {
    const apart = read(
      '<div class="x-window"><div class="head"><span>Login</span></div><div class="body"><form method="POST"><label for="pw">Password:</label><input type="password" id="pw" name="password" autocomplete="off"></form></div><div class="foot"><table><tr><td><button type="button">Login</button></td></tr></table></div></div>',
    );
    expect(apart.kind).toBe("password-only-step");
    expect([apart.userName, apart.confidence > 0.95, apart.submit !== null]).toEqual([null, true, true]);
    const arrow = '<input type="text" readonly tabindex="-1" role="presentation" value="▼ ">';
    const dressed = read(
      `<form method="post"><label for="u">Login:</label>${arrow}<input id="u" name="login"><label for="p">Password:</label>${arrow}<input id="p" type="password" name="password"><label>Profile: <span>${arrow}<input type="hidden" name="profile" value="1"></span></label><label><input type="checkbox" name="remember_me"> Remember me</label><button type="submit">Log in</button></form>`,
      "Log in",
    );
    expect([dressed.kind, dressed.confidence > 0.95]).toEqual(["sign-in", true]);
  });

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

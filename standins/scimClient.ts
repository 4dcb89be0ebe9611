/** The stand-in's SCIM client (RFC 7644): tells Galtry of people and groups, as a directory does after each change. */
import type { StaffAccount } from "./provider";

const USER = "urn:ietf:params:scim:schemas:core:2.0:User";
const GROUP = "urn:ietf:params:scim:schemas:core:2.0:Group";
const PATCH = "urn:ietf:params:scim:api:messages:2.0:PatchOp";

interface Resource {
  id: string;
  [attribute: string]: unknown;
}

export interface ScimClient {
  address: string;
  /** What was last sent, and how it was answered. */
  said: string[];
  sendAll: (staff: readonly StaffAccount[]) => Promise<void>;
  sendPerson: (account: StaffAccount) => Promise<void>;
  sendGroups: (staff: readonly StaffAccount[]) => Promise<void>;
  deletePerson: (sub: string) => Promise<void>;
}

const MOST_SAID = 8;

export function makeScimClient(address: string, token: string): ScimClient {
  const root = address.replace(/\/$/, "");
  const send = async (method: string, path: string, body?: object): Promise<Response> => {
    const answer = await fetch(`${root}/${path}`, {
      method,
      headers: { authorization: `Bearer ${token}`, "content-type": "application/scim+json" },
      ...(body && { body: JSON.stringify(body) }),
    });
    client.said = [`${method} ${path.split("?")[0]}: ${answer.status}`, ...client.said].slice(0, MOST_SAID);
    return answer;
  };
  /** The one that an attribute names; null where there is none. */
  const find = async (kind: "Users" | "Groups", attribute: string, value: string): Promise<Resource | null> => {
    const filter = `${attribute} eq ${JSON.stringify(value)}`;
    const answer = await send("GET", `${kind}?${new URLSearchParams({ filter })}`);
    const { Resources = [] } = (await answer.json()) as { Resources?: Resource[] };
    return Resources[0] ?? null;
  };
  const client: ScimClient = {
    address: root,
    said: [],
    sendAll: async (staff) => {
      for (const account of staff) await client.sendPerson(account);
      await client.sendGroups(staff);
    },
    sendPerson: async ({ sub, name, mail, active }) => {
      const known = await find("Users", "externalId", sub);
      const [givenName = "", ...rest] = name.split(" ");
      const user = {
        schemas: [USER],
        ...{ userName: mail, externalId: sub, displayName: name, active },
        name: { givenName, familyName: rest.join(" ") },
        emails: [{ value: mail, type: "work", primary: true }],
      };
      if (!known) await send("POST", "Users", user);
      else
        await send("PATCH", `Users/${known.id}`, {
          schemas: [PATCH],
          Operations: [{ op: "replace", path: "active", value: active }],
        });
    },
    sendGroups: async (staff) => {
      const names = new Set(staff.flatMap(({ groups }) => groups));
      const ids = new Map<string, string>();
      for (const { sub } of staff) {
        const known = await find("Users", "externalId", sub);
        if (known) ids.set(sub, known.id);
      }
      for (const name of names) {
        const members = staff
          .filter((one) => one.groups.includes(name))
          .flatMap(({ sub }) => (ids.has(sub) ? [{ value: ids.get(sub)! }] : []));
        const known = await find("Groups", "displayName", name);
        if (known)
          await send("PATCH", `Groups/${known.id}`, {
            schemas: [PATCH],
            Operations: [{ op: "replace", path: "members", value: members }],
          });
        else await send("POST", "Groups", { schemas: [GROUP], displayName: name, members });
      }
    },
    deletePerson: async (sub) => {
      const known = await find("Users", "externalId", sub);
      if (known) await send("DELETE", `Users/${known.id}`);
    },
  };
  return client;
}

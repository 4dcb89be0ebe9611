/** What a client is told of this server: RFC 7643, sections 5 to 7, as far as it goes here. */
import { GROUP, USER } from "./resources";

const attribute = (name: string, more: object = {}) => ({
  ...{ name, type: "string", multiValued: false, required: false, caseExact: false },
  ...{ mutability: "readWrite", returned: "default", uniqueness: "none" },
  ...more,
});

const userAttributes = [
  attribute("userName", { required: true, uniqueness: "server" }),
  attribute("displayName"),
  attribute("name", {
    type: "complex",
    subAttributes: ["formatted", "givenName", "familyName"].map((name) => attribute(name)),
  }),
  attribute("emails", {
    type: "complex",
    multiValued: true,
    subAttributes: [attribute("value"), attribute("type"), attribute("primary", { type: "boolean" })],
  }),
  attribute("active", { type: "boolean" }),
  attribute("groups", {
    type: "complex",
    multiValued: true,
    mutability: "readOnly",
    subAttributes: ["value", "display"].map((name) => attribute(name, { mutability: "readOnly" })),
  }),
];

const groupAttributes = [
  attribute("displayName", { required: true, uniqueness: "server" }),
  attribute("members", {
    type: "complex",
    multiValued: true,
    subAttributes: [attribute("value", { mutability: "immutable" }), attribute("display", { mutability: "readOnly" })],
  }),
];

const SCHEMA = "urn:ietf:params:scim:schemas:core:2.0:Schema";
const TYPE = "urn:ietf:params:scim:schemas:core:2.0:ResourceType";

export const schemas = (base: string) =>
  [
    { id: USER, name: "User", description: "An account at the identity provider", attributes: userAttributes },
    { id: GROUP, name: "Group", description: "A group at the identity provider", attributes: groupAttributes },
  ].map((one) => ({
    schemas: [SCHEMA],
    ...one,
    meta: { resourceType: "Schema", location: `${base}/Schemas/${one.id}` },
  }));

export const resourceTypes = (base: string) =>
  [
    { id: "User", name: "User", endpoint: "/Users", schema: USER },
    { id: "Group", name: "Group", endpoint: "/Groups", schema: GROUP },
  ].map((one) => ({
    schemas: [TYPE],
    ...one,
    meta: { resourceType: "ResourceType", location: `${base}/ResourceTypes/${one.id}` },
  }));

export const MOST_RESULTS = 200;

export const serviceProviderConfig = (base: string) => ({
  schemas: ["urn:ietf:params:scim:schemas:core:2.0:ServiceProviderConfig"],
  patch: { supported: true },
  bulk: { supported: false, maxOperations: 0, maxPayloadSize: 0 },
  filter: { supported: true, maxResults: MOST_RESULTS },
  changePassword: { supported: false },
  sort: { supported: false },
  etag: { supported: true },
  authenticationSchemes: [
    {
      type: "oauthbearertoken",
      name: "Bearer token",
      description: "A token that an administrator creates in Galtry, on the page of single sign-on",
      primary: true,
    },
  ],
  meta: { resourceType: "ServiceProviderConfig", location: `${base}/ServiceProviderConfig` },
});

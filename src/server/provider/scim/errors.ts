/** Errors as RFC 7644, 3.12 words them. */
export type ScimType =
  | "invalidFilter"
  | "tooMany"
  | "uniqueness"
  | "mutability"
  | "invalidSyntax"
  | "invalidPath"
  | "noTarget"
  | "invalidValue";

export class ScimError extends Error {
  override name = "ScimError";
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly scimType?: ScimType,
  ) {
    super(detail);
  }

  body() {
    return {
      schemas: ["urn:ietf:params:scim:api:messages:2.0:Error"],
      status: String(this.status),
      ...(this.scimType && { scimType: this.scimType }),
      detail: this.detail,
    };
  }
}

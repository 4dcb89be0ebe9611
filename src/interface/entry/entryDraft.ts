import { CODE, fieldOf, type Kind, SIGN_IN_PAGE, USER_NAME } from "@/core/kinds/kind";
import type { Site } from "../sites/Sites";
import { toTags } from "./TagField";
import type { EntryView } from "./types";

export interface ExtraDraft {
  id: string;
  label: string;
  class: "open" | "identifier" | "secret";
  value: string;
  kept: boolean;
}

export interface Draft {
  name: string;
  description: string;
  reach: "site" | "host";
  notes: string;
  tags: string;
  useSeesUserName: boolean;
  /** By field id, the sign-in page and the one-time code included; a secret that is kept is empty. */
  values: Record<string, string>;
  extras: ExtraDraft[];
}

export function draftOf(kind: Kind, entry: EntryView | null): Draft {
  const views = new Map(entry?.fields.map((field) => [field.id, field]));
  return {
    name: entry?.name ?? "",
    description: entry?.description ?? "",
    reach: entry?.reach ?? "site",
    notes: entry?.notes ?? "",
    tags: entry?.tags.join(", ") ?? "",
    useSeesUserName: entry?.useSeesUserName ?? false,
    values: {
      ...Object.fromEntries(kind.fields.map(({ id }) => [id, views.get(id)?.value ?? ""])),
      ...(entry && { [SIGN_IN_PAGE]: entry.signInPage }),
    },
    extras: (entry?.fields ?? [])
      .filter((field) => field.id.startsWith("extra:"))
      .map((field) => ({
        id: field.id.slice("extra:".length),
        label: field.label,
        class: field.class,
        value: field.value ?? "",
        kept: field.class === "secret" && field.filled,
      })),
  };
}

export const begunFrom = (draft: Draft, site: Site | null): Draft =>
  site
    ? {
        ...draft,
        name: site.name,
        values: { ...draft.values, ...(site.signInPage && { [SIGN_IN_PAGE]: site.signInPage }) },
      }
    : draft;

export function valuesOf(kind: Kind, draft: Draft, existing: boolean, removeCode: boolean) {
  const fields = kind.fields.flatMap((field): [string, string][] => {
    const value = draft.values[field.id] ?? "";
    if (field.id === CODE) {
      if (removeCode) return [[CODE, ""]];
      return value.trim() === "" ? [] : [[CODE, value]];
    }
    return existing && field.class === "secret" && value === "" ? [] : [[field.id, value]];
  });
  return {
    name: draft.name,
    description: draft.description,
    notes: draft.notes,
    ...Object.fromEntries(fields),
    ...(fieldOf(kind, SIGN_IN_PAGE) && { reach: draft.reach }),
    ...(fieldOf(kind, USER_NAME) && { useSeesUserName: draft.useSeesUserName }),
    tags: toTags(draft.tags),
    extras: draft.extras.map((extra) => ({
      id: extra.id,
      label: extra.label,
      class: extra.class,
      value: extra.kept && extra.value === "" ? undefined : extra.value,
    })),
  };
}

import type { ButtonUse } from "./buttons";
import type { FieldUse } from "./fields";
import type { GroupKind } from "./kinds";
import type { Weights } from "./model";

/** The three tables by which a page is read, each for what the one before it found out. */
export interface ReadingWeights {
  buttons: Weights<ButtonUse>;
  fields: Weights<FieldUse>;
  groups: Weights<GroupKind>;
}

import type { PageField } from "./page";
import { patternOf, plain } from "./words";

/** Whether a box beside a sign-in keeps its session beyond the visit. */
export const asksToRemember = ({ name, id, label }: Pick<PageField, "name" | "id" | "label">): boolean =>
  [name, id, label].some((text) => patternOf("remember").test(plain(text)));

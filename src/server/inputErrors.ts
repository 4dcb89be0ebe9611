/** What an input's schema says where it gives no sentence of its own: in words, never the validator's. */

import { z } from "zod";
import { counted } from "../core/counted";

const NOUNS: Readonly<Record<string, string>> = { string: "character", array: "item", set: "item" };

z.config({
  customError: (issue) => {
    const noun = NOUNS[String("origin" in issue ? issue.origin : "")];
    switch (issue.code) {
      case "too_big":
        return noun === "item"
          ? `At most ${counted(Number(issue.maximum), noun)} at once.`
          : noun
            ? `At most ${counted(Number(issue.maximum), noun)}.`
            : `At most ${issue.maximum}.`;
      case "too_small":
        if (noun === "item") return `Choose at least ${issue.minimum}.`;
        if (noun)
          return Number(issue.minimum) <= 1 ? "Fill this in." : `At least ${counted(Number(issue.minimum), noun)}.`;
        return `At least ${issue.minimum}.`;
      case "invalid_type":
        return issue.input === undefined || issue.input === null ? "Fill this in." : "This value is not valid.";
      default:
        return "This value is not valid.";
    }
  },
});

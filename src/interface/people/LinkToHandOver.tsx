"use client";

import { Button, Row, Stack } from "../shared/controls";
import { useCopy } from "../shared/useCopy";

/** A link that is shown once, for somebody who makes a sign-in with it. */
export function LinkToHandOver({ link, name }: { link: string; name: string }) {
  const { copy, copied } = useCopy();
  return (
    <Stack>
      <p>Hand this link to {name}. It works once, for seven days, and is shown only now.</p>
      <p className="mono" style={{ overflowWrap: "anywhere" }} data-link>
        {link}
      </p>
      <Row>
        <Button look="go" onPress={() => copy(link)}>
          {copied ? "Copied" : "Copy the link"}
        </Button>
      </Row>
    </Stack>
  );
}

"use client";

import { Button, Row, Stack } from "../shared/controls";
import { useCopy } from "../shared/useCopy";
import { linkToHandOver as t } from "./strings";

/** A link that is shown once, for somebody who makes a sign-in with it. */
export function LinkToHandOver({ link, name }: { link: string; name: string }) {
  const { copy, copied } = useCopy();
  return (
    <Stack>
      <p>{t.giveThisLinkItWorksOnceWithin(name)}</p>
      <p className="mono" style={{ overflowWrap: "anywhere" }} data-link>
        {link}
      </p>
      <Row>
        <Button look="go" onPress={() => copy(link)}>
          {copied ? t.copied : t.copyTheLink}
        </Button>
      </Row>
    </Stack>
  );
}

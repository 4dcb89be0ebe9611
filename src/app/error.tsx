"use client";

import { useEffect } from "react";
import { UNREACHABLE } from "@/core/unreachable";
import { Button } from "@/interface/shared/controls";

interface ErrorProps {
  error: Error & { digest?: string };
  reset: () => void;
}

export default function ErrorPage(props: ErrorProps) {
  return (
    <main style={{ padding: "12vh 24px", maxWidth: 560, margin: "0 auto" }}>
      {props.error.digest === UNREACHABLE ? <DatabaseAway /> : <Unexpected {...props} />}
    </main>
  );
}

function Unexpected({ error, reset }: ErrorProps) {
  return (
    <>
      <h1>Something went wrong</h1>
      <p style={{ margin: "12px 0" }}>
        Nothing was changed. Try again; if it happens again, quote {error.digest ?? "the time"} to the person who runs
        Galtry.
      </p>
      <Button onPress={reset}>Try again</Button>
    </>
  );
}

const LOOK_MS = 2_000;

/** Comes back by itself as soon as the database does. */
function DatabaseAway() {
  useEffect(() => {
    const timer = setInterval(async () => {
      const back = await fetch("/readyz").then(
        ({ ok }) => ok,
        () => false,
      );
      if (back) location.reload();
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, []);
  return (
    <>
      <h1>Galtry cannot reach its database</h1>
      <p style={{ margin: "12px 0" }} role="status">
        Everything you saved is still there. This page tries again every two seconds and opens as soon as the database
        answers. If it takes longer than a few minutes, tell the person who runs Galtry.
      </p>
      <Button onPress={() => location.reload()}>Try again now</Button>
    </>
  );
}

"use client";

export default function ErrorPage({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  return (
    <main style={{ padding: "12vh 24px", maxWidth: 560, margin: "0 auto" }}>
      <h1>Something went wrong</h1>
      <p style={{ margin: "12px 0" }}>
        Nothing was changed. Try again; if it happens again, quote {error.digest ?? "the time"} to whoever runs Galtry.
      </p>
      <button type="button" onClick={reset}>
        Try again
      </button>
    </main>
  );
}

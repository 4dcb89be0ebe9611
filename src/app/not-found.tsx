export default function NotFound() {
  return (
    <main style={{ padding: "12vh 24px", maxWidth: 560, margin: "0 auto" }}>
      <h1>There is nothing here that you can open</h1>
      <p style={{ margin: "12px 0" }}>
        Either it does not exist, or your access to it has ended. Go back to the <a href="/">Front desk</a>, or ask the
        colleague who told you of it.
      </p>
    </main>
  );
}

export default function NotFound() {
  return (
    <main style={{ padding: "12vh 24px", maxWidth: 560, margin: "0 auto" }}>
      <h1>Page not found</h1>
      <p style={{ margin: "12px 0" }}>
        It does not exist, or you have no access to it. Go to the <a href="/">Front desk</a>, or ask the colleague who
        sent you here.
      </p>
    </main>
  );
}

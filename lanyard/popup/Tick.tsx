import { type ReactNode, useEffect, useState } from "react";

/** A box that is ticked at once, and stays so once the worker has heard of it. */
export function Tick({
  ticked,
  onTick,
  children,
}: {
  ticked: boolean;
  onTick: (ticked: boolean) => void;
  children: ReactNode;
}) {
  const [shown, setShown] = useState(ticked);
  useEffect(() => setShown(ticked), [ticked]);
  return (
    <label className="small tick">
      <input
        type="checkbox"
        checked={shown}
        onChange={(event) => {
          setShown(event.target.checked);
          onTick(event.target.checked);
        }}
      />
      {children}
    </label>
  );
}

import { useEffect } from "react";

/** Another link put into the address of the same page opens like the first: the browser loads nothing by itself. */
export function useNewLink(): void {
  useEffect(() => {
    const heard = () => location.hash.length > 1 && location.reload();
    addEventListener("hashchange", heard);
    return () => removeEventListener("hashchange", heard);
  }, []);
}

import { useMemo } from "react";
import { type Packed, unpack } from "@/core/packed";

export const useUnpacked = <R extends object>(packed: Packed<R>): R[] => useMemo(() => unpack(packed), [packed]);

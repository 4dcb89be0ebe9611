export * from "./address";
export * from "./carries";
export * from "./code";
export * from "./page";
export * from "./read";
export * from "./site";

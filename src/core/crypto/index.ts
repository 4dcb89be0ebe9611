export * from "./bytes";
export * from "./derive";
export * from "./seal";

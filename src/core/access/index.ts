export * from "./explain";
export * from "./grant";
export * from "./level";
export * from "./resolve";
export * from "./tree";
